#pragma once

#include <QWidget>

#include "core/setout/set_out.h"

#include <optional>

namespace westrum {

/// The cushions of a set-out as they will look, in perspective: to be checked before anything is cut.
class CushionPicture : public QWidget {
    Q_OBJECT
public:
    explicit CushionPicture(QWidget* parent = nullptr);
    void show(const SetOut& setOut, const FieldValues& rules, const Product& cloth);
    QSize sizeHint() const override { return {270, 240}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::optional<Product> cloth_;
    Region shapes_;
    double height_ = 0;
    FieldValues rules_;
};

} // namespace westrum
