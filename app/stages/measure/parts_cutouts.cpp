#include "app/stages/measure/parts_panel.h"

#include "app/document/commands.h"

#include <algorithm>
#include <array>

namespace westrum {
namespace {

/// What may happen along the edges of a notch or a cut corner.
constexpr std::array kCutEdges{EdgeKind::Unsaid, EdgeKind::Free, EdgeKind::DoorReveal, EdgeKind::UnderTrim};

QStringList cutEdgeNames() {
    return {PartsPanel::tr("something in it"), PartsPanel::tr("edges free"), PartsPanel::tr("turned in"),
            PartsPanel::tr("under a trim")};
}

int cutEdgePlace(EdgeKind edges) {
    const auto at = std::find(kCutEdges.begin(), kCutEdges.end(), edges);
    return at == kCutEdges.end() ? 0 : static_cast<int>(at - kCutEdges.begin());
}

} // namespace

void PartsPanel::buildCutouts() {
    const Measurement& m = surface()->measurement;
    const auto now = [this]() -> const Measurement& { return surface()->measurement; };
    QStringList corners;
    const bool floor = surface()->kind == SurfaceKind::Floor;
    if (floor)
        corners = {tr("rear right"), tr("front right"), tr("front left"), tr("rear left")};
    else
        for (int k = 0; k < std::max(4, sidesOf(m)); ++k)
            corners << tr("corner %1").arg(QLatin1Char(static_cast<char>('A' + k % 26)));
    int cell = 0;
    const auto next = [&] {
        if (cell++ % 2 == 0) form_->row();
    };
    for (int i = 0; i < static_cast<int>(m.notches.size()); ++i) {
        next();
        form_->text(
            {}, QStringLiteral("notchName%1").arg(i),
            [now, i] { return now().notches[static_cast<std::size_t>(i)].name; },
            [this, i](const std::string& n) { push(document_, renameNotch(document_, id(), i, n)); });
        form_->choice(
            {}, QStringLiteral("notchSide%1").arg(i), sideNames(),
            [now, i] { return now().notches[static_cast<std::size_t>(i)].side; },
            [this, i](int k) { push(document_, moveNotchToSide(document_, id(), i, k)); });
        form_->choice(
            {}, QStringLiteral("notchEdges%1").arg(i), cutEdgeNames(),
            [now, i] { return cutEdgePlace(now().notches[static_cast<std::size_t>(i)].edges); },
            [this, i](int k) { push(document_, describeNotchEdges(document_, id(), i, kCutEdges[std::size_t(k)])); });
        form_->button(
            QStringLiteral("✕"), QStringLiteral("removeNotch%1").arg(i),
            [this, i] { push(document_, removeNotch(document_, id(), i)); }, true);
    }
    for (int i = 0; i < static_cast<int>(m.steps.size()); ++i) {
        next();
        form_->text(
            {}, QStringLiteral("stepName%1").arg(i), [now, i] { return now().steps[static_cast<std::size_t>(i)].name; },
            [this, i](const std::string& n) { push(document_, renameStep(document_, id(), i, n)); });
        form_->choice(
            {}, QStringLiteral("stepCorner%1").arg(i), corners,
            [now, i] { return now().steps[static_cast<std::size_t>(i)].corner; },
            [this, i](int k) { push(document_, moveStepToCorner(document_, id(), i, k)); });
        form_->choice(
            {}, QStringLiteral("stepEdges%1").arg(i), cutEdgeNames(),
            [now, i] { return cutEdgePlace(now().steps[static_cast<std::size_t>(i)].edges); },
            [this, i](int k) { push(document_, describeStepEdges(document_, id(), i, kCutEdges[std::size_t(k)])); });
        form_->button(
            QStringLiteral("✕"), QStringLiteral("removeStep%1").arg(i),
            [this, i] { push(document_, removeStep(document_, id(), i)); }, true);
    }
}

} // namespace westrum
