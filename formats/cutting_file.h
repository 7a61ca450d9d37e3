#pragma once

#include "core/cutting/lengths.h"
#include "core/cutting/shapes.h"
#include "core/cutting/sheets.h"
#include "formats/job_file.h"

#include <QByteArray>
#include <QString>

#include <string>
#include <variant>
#include <vector>

namespace westrum {

/// A cutting problem as westrum-cut reads it, with the pieces' names in the order of their list.
struct CuttingInstance {
    std::variant<LengthsProblem, SheetsProblem, ShapesProblem> problem;
    std::vector<std::string> names;
};

/// The plan of a problem, of the same kind.
using CuttingPlan = std::variant<LengthsPlan, SheetsPlan, ShapesPlan>;

/// Reads docs/formats/cutting.md. Types, counts and names are checked here; sizes by the core's faultsOf().
Result<CuttingInstance, FileFaults> readCutting(const QByteArray& bytes);

CuttingFaults faultsOf(const CuttingInstance& instance);
CuttingPlan cut(const CuttingInstance& instance, const Effort& effort);

/// The answer in the format of docs/formats/cutting.md.
QByteArray answerAsJson(const CuttingInstance& instance, const CuttingPlan& plan);

/// What is wrong with a problem, in a sentence that names the piece.
QString sentence(const CuttingFaultAt& fault, const std::vector<std::string>& pieceNames);

} // namespace westrum
