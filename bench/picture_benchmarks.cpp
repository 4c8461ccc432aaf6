// How long each picture of the reading takes to lay out and to paint, with five thousand shots.
#include "app/pictures/pictures.h"
#include "core/judge/judge.h"
#include "core/random.h"

#include <QApplication>
#include <QImage>
#include <QPainter>
#include <benchmark/benchmark.h>

using namespace knot;
using record::Metric;

namespace {

// Four clubs over laps of five shots; everything that a picture asks for is read.
record::Test longTest() {
    record::Test test;
    for (int club = 0; club < 4; ++club) {
        test.builds.push_back({.name = "Club " + std::to_string(club + 1)});
        test.builds.back().club.head.loft = 9.0 + club;
    }
    Random random(1);
    for (int lap = 0; lap < 250; ++lap)
        for (int place = 0; place < 4; ++place) {
            const int club = (place + lap) % 4;
            for (int i = 0; i < 5; ++i) {
                record::Shot shot{.build = record::BuildAt(static_cast<std::size_t>(club)), .handedOver = i == 0};
                shot.round = std::to_string(lap + 1);
                shot.delivery = lap < 125 ? "usual" : "high";
                auto measure = [&](Metric metric, double mean, double sd) {
                    shot.readings.measure(metric, mean + sd * random.normal());
                };
                measure(Metric::carry, 180 + club, 6);
                measure(Metric::side, 0, 8);
                measure(Metric::ballSpeed, 62 + 0.1 * club, 1);
                measure(Metric::clubSpeed, 43, 0.7);
                measure(Metric::launch, 12 + club, 1);
                measure(Metric::spin, 3200 + 200 * club, 250);
                measure(Metric::attack, -1, 1);
                measure(Metric::dynamicLoft, 13 + club, 1);
                measure(Metric::strikeToe, 0, 6);
                measure(Metric::strikeHigh, 0, 5);
                test.shots.push_back(std::move(shot));
            }
        }
    test.card.trendColumn = "club:loft_deg";
    test.nameShots();
    return test;
}

struct Read {
    judge::Case subject = judge::Case::of(longTest());
    judge::Reading reading = *judge::judge({.subject = subject});
    record::DisplayUnits units;
    record::Structure structure = record::structureOf(subject.seen());
};

const Read& read() {
    static const Read once;
    return once;
}

constexpr QRectF box(0, 0, 680, 500);

std::unique_ptr<app::Picture> pictureAt(int kind) {
    return app::pictureOf(static_cast<app::PictureKind>(kind),
                          {read().subject, read().reading, Metric::carry, record::BuildAt(1),
                           record::OutcomeKind::average, read().units, read().structure});
}

void layOutPicture(benchmark::State& state) {
    const auto picture = pictureAt(static_cast<int>(state.range(0)));
    for (auto _ : state)
        picture->layOut(box);
}
BENCHMARK(layOutPicture)->DenseRange(0, app::pictureKinds - 1)->Unit(benchmark::kMillisecond);

void paintPicture(benchmark::State& state) {
    const auto picture = pictureAt(static_cast<int>(state.range(0)));
    picture->layOut(box);
    QImage image(box.size().toSize(), QImage::Format_RGB32);
    for (auto _ : state) {
        image.fill(Qt::white);
        QPainter painter(&image);
        painter.setRenderHint(QPainter::Antialiasing);
        picture->paint(painter, std::nullopt);
    }
}
BENCHMARK(paintPicture)->DenseRange(0, app::pictureKinds - 1)->Unit(benchmark::kMillisecond);

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
