#include "app/report/report_page.h"

#include "app/form/curtain.h"
#include "app/form/panel.h"
#include "app/report/paper.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QPainter>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace knot::app {

// Sheets under each other, as wide as there is room.
class SheetsView : public QWidget {
public:
    void display(const Paper* paper) {
        m_paper = paper;
        fit();
        update();
    }

protected:
    void resizeEvent(QResizeEvent* /*event*/) override { fit(); }

    void paintEvent(QPaintEvent* event) override {
        QPainter painter(this);
        for (int i = 0; m_paper != nullptr && i < m_paper->sheets(); ++i) {
            const QRect sheet = sheetAt(i);
            if (!sheet.intersects(event->rect()))
                continue;
            painter.save();
            painter.fillRect(sheet, Qt::white);
            painter.setPen(colours().line);
            painter.drawRect(sheet.adjusted(0, 0, -1, -1));
            painter.translate(sheet.topLeft());
            const double scale = static_cast<double>(sheet.width()) / m_paper->sheet().width();
            painter.scale(scale, scale);
            painter.setRenderHint(QPainter::Antialiasing);
            m_paper->paint(painter, i);
            painter.restore();
        }
    }

private:
    QRect sheetAt(int number) const {
        constexpr int widest = 794; // A4 at 96 dots an inch
        const int wide = std::min(widest, width());
        const int high = wide * m_paper->sheet().height() / m_paper->sheet().width();
        return {(width() - wide) / 2, number * (high + 2 * size::grid), wide, high};
    }

    void fit() {
        setMinimumHeight(m_paper == nullptr || m_paper->sheets() == 0 ? 0
                                                                      : sheetAt(m_paper->sheets() - 1).bottom() + 1);
    }

    const Paper* m_paper = nullptr;
};

ReportPage::ReportPage(const TestInHand& hand, Declaring& declaring, Judging& judging, const Book& book)
    : m_hand(hand)
    , m_judging(judging)
    , m_book(book)
    , m_look(ReportLook::kept()) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(2 * size::grid);
    m_sheets = new SheetsView;
    m_sheets->setObjectName(QStringLiteral("sheets"));
    m_scroll = new QScrollArea;
    m_scroll->setWidget(m_sheets);
    m_scroll->setWidgetResizable(true);
    m_scroll->setFrameShape(QFrame::NoFrame);
    m_scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_scroll->setFocusPolicy(Qt::StrongFocus);
    m_scroll->setObjectName(QStringLiteral("reportPreview"));
    m_scroll->setAccessibleName(tr("The report, sheet by sheet"));
    row->addWidget(m_scroll, 1);
    m_curtain = new Curtain;
    row->addWidget(m_curtain, 1);
    row->addWidget(buildLook());
    m_soon.setSingleShot(true);
    m_soon.setInterval(300);
    connect(&m_soon, &QTimer::timeout, this, &ReportPage::markStale);
    connect(&m_hand, &TestInHand::replaced, this, &ReportPage::markStale);
    connect(m_curtain, &Curtain::lookRequested, &declaring, &Declaring::look);
    connect(&m_judging, &Judging::changed, this, &ReportPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &ReportPage::markStale);
}

ReportPage::~ReportPage() = default;

QWidget* ReportPage::buildLook() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("On paper"), column);
    panel->setFixedWidth(300);
    m_size = choiceBox({tr("A4"), tr("Letter")});
    m_size->setCurrentIndex(m_look.paper == QPageSize::Letter ? 1 : 0);
    column->addWidget(labelled(tr("Pa&per"), m_size, "paperSize"));
    m_appendix = new QCheckBox(tr("With how every &verdict was reckoned"));
    m_appendix->setObjectName(QStringLiteral("withAppendix"));
    m_appendix->setChecked(m_look.appendix);
    column->addWidget(m_appendix);
    m_shop = new QPlainTextEdit(m_look.shop);
    m_shop->setTabChangesFocus(true);
    m_shop->setPlaceholderText(tr("name and address"));
    m_shop->setFixedHeight(84);
    column->addWidget(labelled(tr("The s&hop, on top of it"), m_shop, "shop"));
    auto* mark = new QPushButton(tr("Its &mark…"));
    mark->setObjectName(QStringLiteral("chooseMark"));
    auto* none = new QPushButton(tr("N&one"));
    none->setObjectName(QStringLiteral("noMark"));
    none->setAccessibleName(tr("No mark of the shop"));
    auto* marks = new QHBoxLayout;
    marks->addWidget(mark);
    marks->addWidget(none);
    marks->addStretch();
    column->addLayout(marks);
    m_markText = captionLabel("markText");
    column->addWidget(m_markText);
    m_save = new QPushButton(tr("Sa&ve as PDF or HTML…"));
    m_save->setObjectName(QStringLiteral("saveReport"));
    column->addWidget(m_save);
    auto* text = new QPushButton(tr("&Copy as text for a message"));
    text->setObjectName(QStringLiteral("copyReport"));
    column->addWidget(text);
    column->addStretch(1);
    connect(m_size, &QComboBox::activated, this, &ReportPage::change);
    connect(m_appendix, &QCheckBox::toggled, this, &ReportPage::change);
    connect(m_shop, &QPlainTextEdit::textChanged, this, &ReportPage::change);
    connect(mark, &QPushButton::clicked, this, &ReportPage::markRequested);
    connect(none, &QPushButton::clicked, this, [this] { setMark({}); });
    connect(m_save, &QPushButton::clicked, this, &ReportPage::saveRequested);
    connect(text, &QPushButton::clicked, this, &ReportPage::textRequested);
    return panel;
}

void ReportPage::change() {
    m_look.paper = m_size->currentIndex() == 1 ? QPageSize::Letter : QPageSize::A4;
    m_look.appendix = m_appendix->isChecked();
    m_look.shop = m_shop->toPlainText();
    m_look.keep();
    m_soon.start();
}

void ReportPage::setMark(const QString& path) {
    constexpr int largest = 600; // dots: more is not seen at the size it has
    QImage image(path);
    if (!path.isEmpty() && image.isNull())
        return m_markText->setText(tr("%1 is no image that can be read; a PNG or JPEG is.").arg(path));
    if (std::max(image.width(), image.height()) > largest)
        image = image.scaled(largest, largest, Qt::KeepAspectRatio, Qt::SmoothTransformation);
    m_look.mark = image;
    change();
}

void ReportPage::refresh() {
    if (!m_hand.has())
        return;
    const judge::Reading* reading = m_judging.reading();
    m_curtain->display(m_judging.withheld());
    m_scroll->setVisible(!m_judging.withheld());
    m_sheets->display(nullptr);
    m_paper.reset();
    m_report.reset();
    if (reading != nullptr) {
        m_report = std::make_unique<Report>(reportOf({.test = m_hand.test(),
                                                      .subject = m_judging.subject(),
                                                      .reading = *reading,
                                                      .units = m_book.units(),
                                                      .look = m_look}));
        m_paper = std::make_unique<Paper>(*m_report, m_look.paper);
        m_sheets->display(m_paper.get());
    }
    m_markText->setText(m_look.mark.isNull() ? QString() : tr("The mark stands over the name."));
    emit changed();
}

QString ReportPage::subtitle() const {
    if (m_judging.withheld())
        return tr("Report · not before the plan is done");
    if (m_paper == nullptr)
        return tr("Report · the shots are being read");
    return tr("Report · %1")
        .arg(QString::fromStdString(record::counted(static_cast<std::size_t>(m_paper->sheets()), "sheet")));
}

void ReportPage::takeFocus() {
    m_save->setFocus();
}

} // namespace knot::app
