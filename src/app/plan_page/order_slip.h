#pragma once

#include "app/session/declaring.h"

#include <QString>
#include <QWidget>

namespace knot::app {

/// The order slip as a page of HTML: which tag is handed over when, the published hash and, where
/// `tags` are given, which club gets which tag, for the helper alone, and at the sealing the ten words of
/// the key.
QString orderSlipHtml(const record::Test& test, const std::vector<TagOfClub>& tags, const QString& words = {});

/// How clubs are masked, and how a player alone blinds themself.
QString maskingAdvice(bool alone);

/// A window for the helper alone, with the slip and ways to take it along. With the words of a seal that waits to be
/// kept it asks for that: closed otherwise, the clubs stay open.
class OrderSlip : public QWidget {
    Q_OBJECT

public:
    enum class Kind { order, words };
    OrderSlip(const QString& html, Kind kind, QWidget* parent = nullptr);
    /// Writes the slip as a PDF page; what went wrong when it can't be written, else nothing.
    static QString print(const QString& html, const QString& path);

signals:
    void printRequested(const QString& html);
    void saveRequested(const QString& html);
    /// The words stand on paper.
    void kept();
    void left();

protected:
    void closeEvent(QCloseEvent* event) override;

private:
    bool m_waits; ///< for its words to be kept
};

} // namespace knot::app
