#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/face.h"
#include "app/picture/swarm.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "core/judge/columns.h"
#include "core/rack/club_kind.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QPainter>
#include <QPolygonF>

#include <algorithm>
#include <cmath>
#include <limits>

namespace knot::app {
namespace {

using record::Metric;

constexpr double solid = 10; // mm about the middle of the face
constexpr double nameHeight = 40;
constexpr double usualRadius = 4.5;

struct Strike {
    double toe = 0, high = 0; ///< mm
    std::size_t shot = 0;
    double size = 1; ///< of its knot, by the number in hand
};

/// One club's face with what struck it.
struct Face {
    record::BuildAt build;
    QString name, share;
    picture::FaceKind kind = picture::FaceKind::wood;
    std::vector<Strike> strikes;
    picture::FaceLayout layout;
    QRectF box;
};

class FacePicture : public Picture {
public:
    explicit FacePicture(const Looked& looked) {
        const record::Test& test = looked.subject.seen();
        m_toe = test.firstPlayer().leftHanded ? picture::Toe::right : picture::Toe::left;
        const picture::FaceKind usual = picture::faceKind(test);
        for (record::BuildAt b; b < test.builds.size(); ++b) {
            Face face{
                .build = b, .name = nameOf(looked, b), .kind = test.seal.isClosed() ? usual : kindOf(test, b, usual)};
            for (std::size_t i = 0; i < test.shots.size(); ++i) {
                const record::Shot& shot = test.shots[i];
                const auto toe = shot.readings.at(Metric::strikeToe);
                const auto high = shot.readings.at(Metric::strikeHigh);
                if (shot.build != b || !judge::isTaken(shot, judge::Taken::counted) || !toe || !high)
                    continue;
                face.strikes.push_back({*toe, *high, i});
                m_texts.resize(std::max(m_texts.size(), static_cast<qsizetype>(i) + 1));
                m_texts[static_cast<qsizetype>(i)] = strikeText(looked, i, *toe, *high);
            }
            if (!face.strikes.empty())
                add(std::move(face));
        }
        sizeBy(looked);
        QStringList said;
        for (const Face& face : m_faces)
            said << tr("%1 %2").arg(face.name, face.share);
        m_finding = tr("Where the ball met the face: %1.").arg(said.join(QStringLiteral("; ")));
    }

    bool isEmpty() const { return m_faces.empty(); }
    QString finding() const override { return m_finding; }
    QString legend() const override {
        return m_sizeOf.isEmpty() ? Picture::legend() : tr("larger dots: more %1").arg(m_sizeOf);
    }

    void layOut(const QRectF& box) override {
        const auto count = m_faces.size();
        const std::size_t columns = count <= 1 ? 1 : count <= 4 ? 2 : 3;
        const std::size_t rows = (count + columns - 1) / columns;
        const double width = box.width() / static_cast<double>(columns);
        const double height = box.height() / static_cast<double>(std::max<std::size_t>(rows, 1));
        std::size_t strikes = 0;
        for (const Face& face : m_faces)
            strikes += face.strikes.size();
        m_radius = picture::knotRadius(strikes, usualRadius);
        m_marks.clear();
        for (std::size_t i = 0; i < count; ++i) {
            Face& face = m_faces[i];
            face.box = QRectF(box.left() + width * static_cast<double>(i % columns),
                              box.top() + height * static_cast<double>(i / columns), width, height)
                           .adjusted(10, 4, -10, -8);
            face.layout = picture::layOutFace(face.kind, m_toe, face.box.left(), face.box.top() + nameHeight,
                                              face.box.width(), face.box.height() - nameHeight);
            for (const Strike& strike : face.strikes) {
                const auto at = face.layout.place(strike.toe, strike.high);
                m_marks.push_back({{at.x, at.y},
                                   m_radius * strike.size,
                                   strike.shot,
                                   i,
                                   m_texts.value(static_cast<qsizetype>(strike.shot))});
            }
        }
    }

    void paint(QPainter& painter, std::optional<std::size_t> lit) const override {
        for (const Face& face : m_faces)
            paintFace(painter, face);
        for (const Mark& mark : m_marks)
            drawKnot(painter, mark.at, mark.reach, tagColour(m_faces[mark.row].build));
        for (const Mark& mark : m_marks)
            if (lit && mark.shot == *lit)
                drawKnot(painter, mark.at, mark.reach + 3, colours().ink);
    }

private:
    // From the least to the most of the number in hand, where that is not the strike itself.
    void sizeBy(const Looked& looked) {
        if (record::isStrike(looked.metric))
            return;
        const auto& shots = looked.subject.seen().shots;
        double low = std::numeric_limits<double>::infinity();
        double high = -low;
        auto each = [&](auto use) {
            for (Face& face : m_faces)
                for (Strike& strike : face.strikes)
                    if (const auto value = shots[strike.shot].readings.at(looked.metric))
                        use(strike, *value);
        };
        each([&](Strike&, double value) {
            low = std::min(low, value);
            high = std::max(high, value);
        });
        if (!(high > low))
            return;
        each([&](Strike& strike, double value) { strike.size = 0.6 + 0.9 * (value - low) / (high - low); });
        m_sizeOf = QString::fromStdString(record::info(looked.metric).label);
    }

    static picture::FaceKind kindOf(const record::Test& test, record::BuildAt build, picture::FaceKind usual) {
        const record::Part& head = test.builds[build].club.head;
        return head.volume || head.loft ? rack::headKind(head) : usual;
    }

    static QString strikeText(const Looked& looked, std::size_t shot, double toe, double high) {
        return shotText(
            looked, shot,
            tr("%1 mm toward the %2, %3 mm %4 the middle")
                .arg(QString::fromStdString(record::fixed(std::fabs(toe), 0)), toe < 0 ? tr("heel") : tr("toe"),
                     QString::fromStdString(record::fixed(std::fabs(high), 0)), high < 0 ? tr("below") : tr("above")));
    }

    void add(Face face) {
        const auto inside = std::ranges::count_if(
            face.strikes, [](const Strike& strike) { return std::hypot(strike.toe, strike.high) <= solid; });
        face.share = tr("%1 of %2 within %3 mm of the middle").arg(inside).arg(face.strikes.size()).arg(solid);
        m_faces.push_back(std::move(face));
    }

    void paintFace(QPainter& painter, const Face& face) const {
        const Colours& c = colours();
        drawTag(painter, QRectF(face.box.left(), face.box.top() + 6, 12, 12), face.build);
        painter.setPen(c.ink);
        painter.setFont(typeface(size::body, QFont::DemiBold));
        painter.drawText(QPointF(face.box.left() + 20, face.box.top() + 16),
                         clubName(painter, face.name, face.box.width() - 24));
        painter.setPen(c.faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(
            QPointF(face.box.left() + 20, face.box.top() + 33),
            painter.fontMetrics().elidedText(face.share, Qt::ElideRight, static_cast<int>(face.box.width() - 24)));
        QPolygonF outline;
        for (const auto& point : face.layout.outline)
            outline << QPointF(point.x, point.y);
        painter.setPen(QPen(c.ink, 1.4));
        painter.setBrush(c.selection);
        painter.drawPolygon(outline);
        painter.setPen(QPen(c.line, 1));
        for (const auto& groove : face.layout.grooves)
            painter.drawLine(QPointF(groove.from.x, groove.from.y), QPointF(groove.to.x, groove.to.y));
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(c.faint, 1.2, Qt::DashLine));
        const double radius = solid * face.layout.pixelsPerMm;
        painter.drawEllipse(QPointF(face.layout.centre.x, face.layout.centre.y), radius, radius);
    }

    picture::Toe m_toe = picture::Toe::left;
    std::vector<Face> m_faces;
    QStringList m_texts;
    QString m_finding, m_sizeOf; ///< the latter is what the knots' sizes tell
    double m_radius = usualRadius;
};

} // namespace

std::unique_ptr<Picture> facePicture(const Looked& looked) {
    auto picture = std::make_unique<FacePicture>(looked);
    return picture->isEmpty() ? nullptr : std::move(picture);
}

} // namespace knot::app
