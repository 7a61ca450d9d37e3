// The map of a van of 60 surfaces: from file to the first complete picture, and a frame while it is dragged or zoomed.

#include "app/document/job_document.h"
#include "app/drawing/theme.h"
#include "app/shellmap/shell_map.h"
#include "formats/demo.h"

#include <benchmark/benchmark.h>

#include <QApplication>
#include <QMouseEvent>

using namespace westrum;

namespace {

QByteArray sixtySurfaces() {
    Job job = demoJob();
    const std::vector<Surface> once = job.surfaces;
    for (std::size_t i = 0; job.surfaces.size() < 60; ++i) {
        Surface s = once[i % once.size()];
        s.id = freeSurfaceId(job, s.id);
        for (Edge& e : s.edges) e = Edge{};
        if (s.kind == SurfaceKind::Floor) job.finishes[s.id] = job.finishes["floor"];
        job.surfaces.push_back(std::move(s));
    }
    return writeJob(job);
}

void send(QWidget& widget, QEvent::Type type, QPointF at, Qt::MouseButtons buttons) {
    QMouseEvent event(type, at, at, type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton, buttons, {});
    QCoreApplication::sendEvent(&widget, &event);
}

} // namespace

static void fileToFirstCompleteMap(benchmark::State& state) {
    const QByteArray bytes = sixtySurfaces();
    for (auto _ : state) {
        JobDocument document;
        document.open(readJob(bytes).value(), {});
        ShellMap map(document);
        map.resize(1240, 660);
        while (document.isPlanning()) QCoreApplication::processEvents();
        benchmark::DoNotOptimize(map.grab());
    }
}
BENCHMARK(fileToFirstCompleteMap)->Unit(benchmark::kMillisecond);

static void aFrameWhilePanning(benchmark::State& state) {
    JobDocument document;
    document.open(readJob(sixtySurfaces()).value(), {});
    ShellMap map(document);
    map.resize(1240, 660);
    while (document.isPlanning()) QCoreApplication::processEvents();
    QImage frame(map.size(), QImage::Format_RGB32);
    map.render(&frame);
    send(map, QEvent::MouseButtonPress, {400, 300}, Qt::LeftButton);
    double x = 400;
    for (auto _ : state) {
        x = x > 900 ? 410 : x + 7;
        send(map, QEvent::MouseMove, {x, 300}, Qt::LeftButton);
        map.render(&frame);
    }
}
BENCHMARK(aFrameWhilePanning)->Unit(benchmark::kMillisecond);

static void aFrameWhileZooming(benchmark::State& state) {
    JobDocument document;
    document.open(readJob(sixtySurfaces()).value(), {});
    ShellMap map(document);
    map.resize(1240, 660);
    while (document.isPlanning()) QCoreApplication::processEvents();
    QImage frame(map.size(), QImage::Format_RGB32);
    double factor = 1.1;
    int steps = 0;
    for (auto _ : state) {
        if (++steps % 12 == 0) factor = 1 / factor;
        map.zoomBy(factor, {500, 300});
        map.render(&frame);
    }
}
BENCHMARK(aFrameWhileZooming)->Unit(benchmark::kMillisecond);

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    loadFonts();
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
