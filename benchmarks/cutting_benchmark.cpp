// westrum-cutting-benchmark [SECONDS [FOLDER]]: cuts every instance of a folder (benchmarks/cutting) and prints, per
// class, cost or length against the bound and the known optimum, how many are proved, and the time.

#include "formats/cutting_file.h"

#include <QDir>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>

#include <chrono>
#include <cstdio>
#include <map>

using namespace westrum;

namespace {

struct Figures {
    double value, bound;
    bool proven;
};

Figures figuresOf(const CuttingPlan& plan) {
    if (const auto* shapes = std::get_if<ShapesPlan>(&plan))
        return {shapes->lengthMm, shapes->lowerBoundMm, shapes->proven};
    if (const auto* sheets = std::get_if<SheetsPlan>(&plan))
        return {sheets->cost, sheets->lowerBoundCost, sheets->proven};
    const auto& lengths = std::get<LengthsPlan>(plan);
    return {lengths.cost, lengths.lowerBoundCost, lengths.proven};
}

struct Class {
    int instances = 0;
    int proven = 0;
    int known = 0;
    double overBound = 0;
    double overOptimum = 0;
    double worstOverOptimum = 0;
    double seconds = 0;
};

QByteArray contents(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

} // namespace

int main(int argc, char** argv) {
    const double limit = argc > 1 ? QByteArray(argv[1]).toDouble() : 10;
    const QDir folder(argc > 2 ? QString::fromLocal8Bit(argv[2])
                               : QStringLiteral(WESTRUM_SOURCE_DIR "/benchmarks/cutting"));
    if (!(limit > 0)) {
        std::fprintf(stderr, "usage: westrum-cutting-benchmark [SECONDS [FOLDER]]\n");
        return 2;
    }
    const QJsonObject optima =
        QJsonDocument::fromJson(contents(folder.filePath(QStringLiteral("optima.json")))).object();
    std::map<QString, Class> classes;
    for (const QString& name : folder.entryList({QStringLiteral("*-*-*.json")}, QDir::Files, QDir::Name)) {
        const auto instance = readCutting(contents(folder.filePath(name)));
        if (!instance || !faultsOf(instance.value()).empty()) {
            std::fprintf(stderr, "%s cannot be cut\n", qPrintable(name));
            return 2;
        }
        const QString id = name.chopped(5);
        const auto start = std::chrono::steady_clock::now();
        const auto gone = [start] {
            return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
        };
        Effort effort;
        effort.timeSpent = [&] { return gone() / limit; };
        const Figures found = figuresOf(cut(instance.value(), effort));
        const double seconds = gone();
        Class& c = classes[id.section(QLatin1Char('-'), 0, 1)];
        ++c.instances;
        c.proven += found.proven;
        c.overBound += found.value / found.bound - 1;
        c.seconds += seconds;
        QString optimum;
        if (optima.contains(id)) {
            const double over = found.value / optima[id].toDouble() - 1;
            ++c.known;
            c.overOptimum += over;
            c.worstOverOptimum = std::max(c.worstOverOptimum, over);
            optimum = QStringLiteral("  optimum +%1 %").arg(100 * over, 0, 'f', 2);
        }
        std::printf("%-20s %12.3f  bound +%.2f %%%s%s  %.2f s\n", qPrintable(id), found.value,
                    100 * (found.value / found.bound - 1), qPrintable(optimum), found.proven ? "  proved" : "",
                    seconds);
        std::fflush(stdout);
    }
    std::printf("\n%-16s %9s %7s %9s %11s %11s %8s\n", "class", "instances", "proved", "bound +%", "optimum +%",
                "worst +%", "s each");
    for (const auto& [name, c] : classes)
        std::printf("%-16s %9d %7d %9.2f %11s %11s %8.2f\n", qPrintable(name), c.instances, c.proven,
                    100 * c.overBound / c.instances,
                    c.known ? qPrintable(QString::number(100 * c.overOptimum / c.known, 'f', 2)) : "-",
                    c.known ? qPrintable(QString::number(100 * c.worstOverOptimum, 'f', 2)) : "-",
                    c.seconds / c.instances);
    return 0;
}
