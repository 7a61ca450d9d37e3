#pragma once

#include "core/plan/cut_problems.h"
#include "core/plan/inputs.h"
#include "core/plan/purchases.h"
#include "core/plan/starts.h"
#include "core/plan/surface_stage.h"

#include <memory>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

using Cuts = std::vector<std::shared_ptr<const ProductCut>>;

/// Plans jobs one after the other, stage by stage. Each stage is kept with the input that it was made from, and made
/// anew when that differs: there is no other rule. Not for two threads at once.
class StagedPlan {
public:
    struct Answer {
        std::shared_ptr<const Plan> plan; ///< null when stopped; the same as before where nothing differs
        std::shared_ptr<const SurfaceStage> surfaces;
        std::shared_ptr<const std::vector<CutProblem>> problems;
    };
    /// @param cuts  the latest of every product that has one, of whatever problem
    Answer plan(const Job& job, const Cuts& cuts, const std::stop_token& stop = {});

private:
    /// A value and what it was made from.
    template <class Input, class Value> struct Kept {
        std::optional<Input> input;
        std::shared_ptr<const Value> value;
        /// Made anew if the input differs. True if so.
        template <class Make> bool renew(Input now, const Make& make) {
            if (value && input == now) return false;
            auto made = make(now);
            if (!made) return false; // stopped: what was there stays, with its own input
            value = std::make_shared<const Value>(std::move(*made));
            input = std::move(now);
            return true;
        }
    };
    using SurfacesPtr = std::shared_ptr<const SurfaceStage>;
    struct CuttingOf {
        SurfacesPtr surfaces;
        CuttingInput job;
        friend bool operator==(const CuttingOf&, const CuttingOf&) = default;
    };
    struct PurchasesOf {
        SurfacesPtr surfaces;
        Cuts cuts;
        PurchasesInput job;
        friend bool operator==(const PurchasesOf&, const PurchasesOf&) = default;
    };
    struct BalanceOf {
        SurfacesPtr surfaces;
        std::shared_ptr<const PurchaseStage> purchases;
        BalanceInput job;
        friend bool operator==(const BalanceOf&, const BalanceOf&) = default;
    };
    Planner planner_;
    Kept<SurfacesInput, SurfaceStage> surfaces_;
    Kept<CuttingOf, std::vector<CutProblem>> problems_;
    Kept<PurchasesOf, PurchaseStage> purchases_;
    Kept<BalanceOf, BalanceStage> balance_;
    std::shared_ptr<const Plan> plan_;
};

} // namespace westrum
