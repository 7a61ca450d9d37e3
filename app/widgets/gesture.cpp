#include "app/widgets/gesture.h"

namespace westrum {

int nextGesture() {
    static int gesture = 0;
    return ++gesture;
}

} // namespace westrum
