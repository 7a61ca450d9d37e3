// westrum-takeoff JOB [--json|--csv|--cuts|--text] [--iterations N]: the plan of a job without a window, cut and
// bought. Exit status: 0 planned, 1 planned with errors among the remarks, 2 cannot read.

#include "core/plan/cut_problems.h"
#include "formats/job_file.h"
#include "formats/plan_file.h"
#include "formats/translations.h"

#include <QCommandLineParser>
#include <QCoreApplication>

#include <cstdio>

using namespace westrum;

namespace {
struct Takeoff {
    Q_DECLARE_TR_FUNCTIONS(Takeoff)
};
} // namespace

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv);
    QCoreApplication::setApplicationName(QStringLiteral("westrum-takeoff"));
    QCoreApplication::setApplicationVersion(QStringLiteral(WESTRUM_VERSION));
    loadTranslations();

    QCommandLineParser parser;
    parser.setApplicationDescription(Takeoff::tr("Works out what a job takes: pieces, planks, purchases, remarks."));
    const QCommandLineOption json(QStringLiteral("json"), Takeoff::tr("The whole plan as JSON."));
    const QCommandLineOption csv(QStringLiteral("csv"), Takeoff::tr("The shopping list as CSV."));
    const QCommandLineOption cuts(QStringLiteral("cuts"), Takeoff::tr("The cut list as CSV."));
    const QCommandLineOption text(QStringLiteral("text"), Takeoff::tr("Sentences and tables (the default)."));
    const QCommandLineOption iterations(
        QStringLiteral("iterations"),
        Takeoff::tr("How long the cutting of each product searches: the same number, the same answer."),
        QStringLiteral("N"), QStringLiteral("300"));
    parser.addOptions({json, csv, cuts, text, iterations});
    parser.addPositionalArgument(QStringLiteral("JOB"), Takeoff::tr("A job file."));
    parser.addHelpOption();
    parser.addVersionOption();
    if (!parser.parse(app.arguments())) {
        std::fprintf(stderr, "westrum-takeoff: %s\n", qPrintable(parser.errorText()));
        return 2;
    }
    if (parser.isSet(QStringLiteral("help"))) parser.showHelp(0);
    if (parser.isSet(QStringLiteral("version"))) parser.showVersion();
    const int forms = parser.isSet(json) + parser.isSet(csv) + parser.isSet(cuts) + parser.isSet(text);
    bool counted = false;
    const int search = parser.value(iterations).toInt(&counted);
    if (parser.positionalArguments().size() != 1 || forms > 1 || !counted || search < 1) {
        std::fprintf(
            stderr, "%s\n",
            qPrintable(Takeoff::tr("usage: westrum-takeoff JOB [--json|--csv|--cuts|--text] [--iterations N]")));
        return 2;
    }
    const QString path = parser.positionalArguments().constFirst();
    const Result<Job, FileFaults> job = readJobFile(path);
    if (!job) {
        for (const FileFault& fault : job.error())
            std::fprintf(stderr, "%s: %s\n", qPrintable(path), qPrintable(sentence(fault)));
        return 2;
    }
    Plan result = plan(job.value());
    std::vector<ProductCut> products;
    for (const CutProblem& problem : cutProblems(job.value(), result))
        products.push_back(cutProduct(problem, {.seed = problem.seed, .iterations = search}));
    result = withCuts(std::move(result), job.value(), products);
    QByteArray out;
    if (parser.isSet(json))
        out = planAsJson(job.value(), result);
    else if (parser.isSet(csv))
        out = shoppingListAsCsv(job.value(), result);
    else if (parser.isSet(cuts))
        out = cutListAsCsv(job.value(), result);
    else
        out = planAsText(job.value(), result, figuresFor(job.value())).toUtf8();
    if (std::fwrite(out.constData(), 1, static_cast<std::size_t>(out.size()), stdout) !=
            static_cast<std::size_t>(out.size()) ||
        std::fflush(stdout) != 0)
        return 2;
    return result.hasErrors() ? 1 : 0;
}
