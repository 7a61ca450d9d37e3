#pragma once

#include "app/document/job_document.h"

#include <QtTest>

namespace westrum::test {

/// Waits until plan and start lines belong to the job as it is.
inline bool settle(const JobDocument& document) {
    return QTest::qWaitFor([&] { return document.isSettled(); }, 20000);
}

/// Waits until the plan belongs to the job as it is; the start lines may still be under way.
inline bool settlePlan(const JobDocument& document) {
    return QTest::qWaitFor([&] { return !document.isPlanning(); }, 20000);
}

/// Waits until no product is being cut any more.
inline bool settleCuts(const JobDocument& document) {
    return QTest::qWaitFor([&] { return !document.isPlanning() && !document.cutting().isSearching(); }, 60000);
}

} // namespace westrum::test
