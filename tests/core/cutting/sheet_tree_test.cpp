#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/sheet_bound.h"
#include "core/cutting/sheet_search.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

namespace {

constexpr SheetUnits kMm = 1'000'000;

double areaMm2(const std::array<SheetUnits, 2>& size) { return double(size[0]) * double(size[1]) / double(kMm * kMm); }

/// Every leaf lies in its parent, the leaves do not overlap and together are the sheet.
QString brokenRule(const SheetTree& tree) {
    double sum = 0;
    for (const SheetTree::Node& node : tree.nodes()) {
        if (node.leaf()) {
            if (node.size[0] < 0 || node.size[1] < 0) return QStringLiteral("negative");
            sum += areaMm2(node.size);
            continue;
        }
        const auto& a = tree.nodes()[std::size_t(node.first)];
        const auto& b = tree.nodes()[std::size_t(node.second)];
        const auto axis = std::size_t(node.axis);
        if (a.at != node.at || a.size[axis] + b.size[axis] != node.size[axis] ||
            b.at[axis] != node.at[axis] + a.size[axis] || a.size[1 - axis] != node.size[1 - axis] ||
            b.size[1 - axis] != node.size[1 - axis])
            return QStringLiteral("children are not the halves of their parent");
    }
    const double whole = areaMm2(tree.nodes().front().size);
    return std::abs(sum - whole) < 1e-6 * whole ? QString() : QStringLiteral("leaves are not the sheet");
}

/// Items that fill `sheets` sheets without waste, and so surely fit them.
std::vector<SheetItem> cutUp(std::mt19937& dice, std::array<SheetUnits, 2> sheet, int sheets, bool mayTurn) {
    std::vector<SheetItem> items;
    for (int s = 0; s < sheets; ++s) {
        std::vector<std::array<SheetUnits, 2>> parts{sheet};
        while (parts.size() < 6) {
            auto& part = parts[dice() % parts.size()];
            const std::size_t axis = part[0] > part[1] ? 0 : 1;
            if (part[axis] < 300 * kMm) continue;
            auto rest = part;
            part[axis] = (100 + SheetUnits(dice() % unsigned(part[axis] / kMm - 200))) * kMm;
            rest[axis] -= part[axis];
            parts.push_back(rest);
        }
        for (const auto& part : parts) items.push_back({part, mayTurn, items.size()});
    }
    return items;
}

} // namespace

class SheetTreeTest : public QObject {
    Q_OBJECT

private slots:
    void aBlockIsPlacedAndTheRestStaysWhole() {
        // 1000 x 600 into 2400 x 1200, cut across x first: right of it 1400 x 1200, above it 1000 x 600.
        SheetTree tree({2400 * kMm, 1200 * kMm}, 0);
        const std::vector<SheetBlock> blocks{{.size = {1000 * kMm, 600 * kMm}, .item = 4}};
        tree.place(0, blocks, 0, false, 0);
        QCOMPARE(brokenRule(tree), QString());
        QCOMPARE(tree.itemLeaves().size(), 1UL);
        QCOMPARE(tree.nodes()[std::size_t(tree.itemLeaves()[0])].item, 4);
        std::vector<std::array<SheetUnits, 2>> free;
        for (const int leaf : tree.freeLeaves()) free.push_back(tree.nodes()[std::size_t(leaf)].size);
        std::sort(free.begin(), free.end());
        QCOMPARE(free, (std::vector<std::array<SheetUnits, 2>>{{1000 * kMm, 600 * kMm}, {1400 * kMm, 1200 * kMm}}));
    }

    void aTurnedPairIsPlacedAsItLies() {
        // Two of 300 x 200 side by side are 600 x 200; turned by a quarter they lie above each other, 200 x 600.
        SheetTree tree({1000 * kMm, 1000 * kMm}, 0);
        const std::array<SheetUnits, 2> one{300 * kMm, 200 * kMm};
        const std::vector<SheetBlock> blocks{{.size = one, .item = 0},
                                             {.size = one, .item = 1},
                                             {.size = {600 * kMm, 200 * kMm}, .first = 0, .second = 1}};
        tree.place(0, blocks, 2, true, 1);
        QCOMPARE(brokenRule(tree), QString());
        for (const int leaf : tree.itemLeaves()) {
            const SheetTree::Node& node = tree.nodes()[std::size_t(leaf)];
            QVERIFY(node.turned);
            QCOMPARE(node.size, (std::array<SheetUnits, 2>{200 * kMm, 300 * kMm}));
        }
        QCOMPARE(tree.itemLeaves().size(), 2UL);
    }

    void clearingGivesBackItemsAndRoom() {
        SheetTree tree({1000 * kMm, 1000 * kMm}, 0);
        const std::vector<SheetBlock> blocks{{.size = {400 * kMm, 400 * kMm}, .item = 7}};
        tree.place(0, blocks, 0, false, 0);
        std::vector<int> out;
        tree.clear(0, out);
        tree.tidy();
        QCOMPARE(out, std::vector<int>{7});
        QCOMPARE(tree.nodes().size(), 1UL);
        QCOMPARE(tree.freeLeaves(), std::vector<int>{0});
    }

    void whatIsPinnedIsNeverCleared() {
        SheetTree tree({1000 * kMm, 1000 * kMm}, 0);
        tree.split(0, 0, 300 * kMm);
        const int left = tree.nodes()[0].first;
        tree.pin(left, 3, false);
        std::vector<int> out;
        tree.clear(0, out);
        tree.tidy();
        QVERIFY(out.empty());
        QCOMPARE(tree.itemLeaves().size(), 1UL);
        QVERIFY(tree.nodes()[std::size_t(tree.itemLeaves()[0])].pinned);
        QCOMPARE(brokenRule(tree), QString());
    }

    void inequalitiesAllowWhatFits() {
        std::mt19937 dice(6);
        for (int round = 0; round < 40; ++round) {
            const std::array<SheetUnits, 2> size{2440 * kMm, 1220 * kMm};
            const int sheets = 1 + int(dice() % 3);
            const auto items = cutUp(dice, size, sheets, dice() % 2 == 0);
            for (const StockCut& cut : sheetCuts(items, {size})) QVERIFY(cut.allows({sheets}));
            QVERIFY(!sliceCut(items, {size}, {sheets}));
            // One sheet less cannot carry them: the areas say so.
            QVERIFY(!sheetCuts(items, {size})[0].allows({sheets - 1}));
        }
    }

    void theSearchKeepsEveryItem() {
        std::mt19937 dice(13);
        for (int round = 0; round < 20; ++round) {
            const std::array<SheetUnits, 2> size{2440 * kMm, 1220 * kMm};
            const auto items = cutUp(dice, size, 2, true);
            std::vector<int> loose;
            for (std::size_t i = 0; i < items.size(); ++i) loose.push_back(int(i));
            SheetSearch search(items, {SheetTree(size, 0), SheetTree(size, 0)}, loose, std::uint64_t(round));
            for (int n = 0; n < 10; ++n) {
                const bool done = search.improve(30);
                std::vector<int> seen = search.packing().loose;
                QCOMPARE(done, seen.empty());
                for (const SheetTree& tree : search.packing().sheets) {
                    QCOMPARE(brokenRule(tree), QString());
                    for (const int leaf : tree.itemLeaves()) {
                        const SheetTree::Node& node = tree.nodes()[std::size_t(leaf)];
                        auto lies = items[std::size_t(node.item)].size;
                        if (node.turned) std::swap(lies[0], lies[1]);
                        QCOMPARE(node.size, lies);
                        seen.push_back(node.item);
                    }
                }
                std::sort(seen.begin(), seen.end());
                QCOMPARE(seen, loose);
            }
        }
    }

    void theFirstSheetsHoldEverything() {
        std::mt19937 dice(14);
        const std::array<SheetUnits, 2> size{2440 * kMm, 1220 * kMm};
        const auto items = cutUp(dice, size, 5, false);
        std::vector<int> loose;
        for (std::size_t i = 0; i < items.size(); ++i) loose.push_back(int(i));
        const SheetPacking packing =
            firstSheets(items, {}, loose, [&](const SheetItem&) { return std::optional(SheetTree(size, 0)); });
        QVERIFY(packing.loose.empty());
        QVERIFY(packing.sheets.size() >= 5 && packing.sheets.size() <= 10);
        const SheetPacking none =
            firstSheets(items, {}, loose, [](const SheetItem&) { return std::optional<SheetTree>(); });
        QCOMPARE(none.loose.size(), items.size());
    }
};

WESTRUM_TEST(SheetTreeTest)
#include "sheet_tree_test.moc"
