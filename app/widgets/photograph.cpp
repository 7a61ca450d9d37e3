#include "app/widgets/photograph.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QImageReader>

#include <algorithm>

namespace westrum {
namespace {

struct Photograph {
    Q_DECLARE_TR_FUNCTIONS(Photograph)
};

} // namespace

QImage readPhotograph(const QString& path, QString& why, int mostPixels) {
    const QString name = QFileInfo(path).fileName();
    if (!QFileInfo(path).isFile()) {
        why = Photograph::tr("%1 is not there any more, or was put elsewhere.").arg(name);
        return {};
    }
    constexpr int kMostMegabytes = 600; // 150 million pixels; more is refused with a sentence
    QImageReader::setAllocationLimit(kMostMegabytes);
    QImageReader reader(path);
    reader.setAutoTransform(true);
    const QSize size = reader.size();
    if (size.isValid() && std::max(size.width(), size.height()) > mostPixels)
        reader.setScaledSize(size.scaled(mostPixels, mostPixels, Qt::KeepAspectRatio));
    QImage picture = reader.read();
    if (picture.isNull()) why = Photograph::tr("%1 is no picture that can be read: %2").arg(name, reader.errorString());
    return picture;
}

} // namespace westrum
