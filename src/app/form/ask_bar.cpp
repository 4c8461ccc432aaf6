#include "app/form/ask_bar.h"

#include "app/form/key_row.h"
#include "app/form/panel.h"
#include "app/style/palette.h"

#include <QCompleter>
#include <QCoreApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

// The upper row of keys, as the answers stand in a row. Who has more answers clicks on them.
constexpr std::array answerKeys = {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4, Qt::Key_5,     Qt::Key_6,
                                   Qt::Key_7, Qt::Key_8, Qt::Key_9, Qt::Key_0, Qt::Key_Minus, Qt::Key_Equal};

int answerOf(int key) {
    const auto at = std::ranges::find(answerKeys, key);
    return at == answerKeys.end() ? key - Qt::Key_unknown : static_cast<int>(at - answerKeys.begin());
}

int keyOf(int answer) {
    const auto place = static_cast<std::size_t>(answer);
    return place < answerKeys.size() ? static_cast<int>(answerKeys[place]) : Qt::Key_unknown + answer;
}

} // namespace

AskBar::AskBar(QWidget* parent)
    : QWidget(parent)
    , m_question(headingLabel({}))
    , m_line(new QLineEdit)
    , m_answers(new KeyRow)
    , m_hint(captionLabel("askHint")) {
    setObjectName(QStringLiteral("askBar"));
    setFocusPolicy(Qt::StrongFocus);
    m_question->setObjectName(QStringLiteral("askQuestion"));
    m_line->setObjectName(QStringLiteral("askLine"));
    m_answers->setObjectName(QStringLiteral("askAnswers"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(size::grid);
    auto* top = new QHBoxLayout;
    top->addWidget(m_question);
    top->addWidget(m_hint, 1);
    m_hint->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    column->addLayout(top);
    column->addWidget(m_line);
    column->addWidget(m_answers);
    column->addStretch();
    connect(m_line, &QLineEdit::returnPressed, this, [this] {
        const Taken taken = std::move(m_taken);
        const QString text = m_line->text().trimmed();
        leave();
        if (taken)
            taken(text);
    });
    connect(m_answers, &KeyRow::pressed, this, [this](int key) { choose(answerOf(key)); });
}

QString AskBar::question() const {
    return m_question->text();
}

void AskBar::begin(const QString& question) {
    m_question->setText(question);
    m_line->setAccessibleName(question);
    m_asking = true;
    m_taken = nullptr;
    m_chosen = nullptr;
}

void AskBar::askLine(const QString& question, const QString& start, const QStringList& suggestions, Taken taken) {
    begin(question);
    m_taken = std::move(taken);
    m_line->setText(start);
    auto* completer = new QCompleter(suggestions, m_line);
    completer->setCompletionMode(QCompleter::InlineCompletion);
    completer->setCaseSensitivity(Qt::CaseInsensitive);
    m_line->setCompleter(completer);
    m_line->show();
    m_answers->hide();
    m_hint->setText(suggestions.isEmpty() ? tr("Enter keeps it, Escape leaves it.")
                                          : tr("%1, or your own words. Enter keeps it, Escape leaves it.")
                                                .arg(suggestions.join(QStringLiteral(", "))));
    m_line->setFocus();
    m_line->selectAll();
}

void AskBar::askChoice(const QString& question, const QStringList& answers, Chosen chosen) {
    begin(question);
    m_chosen = std::move(chosen);
    m_choices = static_cast<int>(answers.size());
    QList<KeyRow::Entry> entries;
    for (int i = 0; i < m_choices; ++i)
        entries << KeyRow::Entry{keyOf(i),
                                 i < static_cast<int>(answerKeys.size()) ? QString(QChar(keyOf(i))) : QString(),
                                 answers[i],
                                 {},
                                 false};
    m_answers->setEntries(entries);
    m_line->hide();
    m_answers->show();
    m_hint->setText(tr("Escape leaves it."));
    setFocus();
}

void AskBar::askChoiceOrLine(const QString& question, const QStringList& answers, Chosen chosen, Taken taken) {
    askChoice(question, answers, std::move(chosen));
    m_taken = std::move(taken);
    m_line->clear();
    m_line->setCompleter(nullptr);
    m_line->show();
    m_hint->setText(tr("Enter alone gives it a number. Escape leaves it."));
}

void AskBar::choose(int answer) {
    if (answer < 0 || answer >= m_choices || !m_chosen)
        return;
    const Chosen chosen = std::move(m_chosen);
    leave();
    chosen(answer);
}

void AskBar::leave() {
    m_asking = false;
    emit done();
}

// Escape leaves the question, whatever the window does with it.
bool AskBar::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride && m_asking &&
        static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape)
        event->accept();
    return QWidget::event(event);
}

void AskBar::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape)
        return leave();
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        if (hasFocus() && m_taken)
            emit m_line->returnPressed(); // else the line has taken it
        return;
    }
    const QChar typed = event->text().isEmpty() ? QChar() : event->text().front();
    const bool answers = typed.isDigit() && typed.digitValue() <= m_choices; // "7 iron" is a name where there are fewer
    if (hasFocus() && m_taken && typed.isLetterOrNumber() && !answers) {
        m_line->setFocus();
        QCoreApplication::sendEvent(m_line, event);
        return;
    }
    if (hasFocus() && m_chosen && std::ranges::find(answerKeys, event->key()) != answerKeys.end())
        return choose(answerOf(event->key()));
    QWidget::keyPressEvent(event);
}

} // namespace knot::app
