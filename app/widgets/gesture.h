#pragma once

namespace westrum {

/// A number for the next gesture: what is done in one of them is one undo step.
int nextGesture();

} // namespace westrum
