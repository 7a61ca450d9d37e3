#pragma once

#include "app/document/job_document.h"

#include <QtTest>

namespace westrum::test {

/// Waits until plan and start lines belong to the job as it is.
inline bool settle(const JobDocument& document) {
    return QTest::qWaitFor([&] { return document.isSettled(); }, 20000);
}

} // namespace westrum::test
