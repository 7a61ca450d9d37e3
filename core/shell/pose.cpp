#include "core/shell/pose.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// A point of a section, on beyond its ends as it goes there.
SectionPoint alongSection(const std::vector<SectionPoint>& section, double along) {
    if (section.size() < 2) return {0, along, along};
    std::size_t k = 1;
    while (k + 1 < section.size() && section[k].along < along) ++k;
    const SectionPoint &a = section[k - 1], &b = section[k];
    const double step = b.along - a.along, share = step > 1e-9 ? (along - a.along) / step : 0;
    return {a.inside + (b.inside - a.inside) * share, a.high + (b.high - a.high) * share, along};
}

/// The surface's own point with its bends taken out: what of it lies in the plane, and how far the rest stands inside.
struct Straight {
    Point inPlane;
    double inside{};
};
Straight straightened(const Pose& pose, Point own) {
    const SectionPoint up = alongSection(pose.upwards, own.y - pose.foot.y),
                       on = alongSection(pose.lengthways, own.x - pose.foot.x);
    return {{pose.foot.x + on.high, pose.foot.y + up.high}, up.inside + on.inside};
}

} // namespace

double dot(VanPoint a, VanPoint b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
VanPoint cross(VanPoint a, VanPoint b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }
double length(VanPoint a) { return std::sqrt(dot(a, a)); }
VanPoint unit(VanPoint a) {
    const double l = length(a);
    return l > 1e-9 ? a * (1 / l) : VanPoint{};
}

VanPoint Pose::map(Point own) const {
    const Straight s = straightened(*this, own);
    return origin + perX * s.inPlane.x + perY * s.inPlane.y + inwards * s.inside;
}

VanPoint Pose::up(Point own) const {
    return upwards.empty() ? perY : unit(map({own.x, own.y + 0.5}) - map({own.x, own.y - 0.5}));
}

VanPoint Pose::facing(Point own) const {
    if (upwards.empty() && lengthways.empty()) return inwards;
    return unit(cross(map({own.x + 0.5, own.y}) - map({own.x - 0.5, own.y}), up(own)));
}

std::optional<Point> Pose::at(double x, double y) const {
    Point own = foot;
    for (int round = 0; round < 30; ++round) {
        const VanPoint now = map(own), perOwnX = map({own.x + 1, own.y}) - now, perOwnY = map({own.x, own.y + 1}) - now;
        const double over = perOwnX.x * perOwnY.y - perOwnX.y * perOwnY.x;
        if (std::abs(over) < 0.05) return std::nullopt;
        const double dx = x - now.x, dy = y - now.y;
        own = own + Point{(dx * perOwnY.y - dy * perOwnY.x) / over, (perOwnX.x * dy - perOwnX.y * dx) / over};
        if (std::hypot(dx, dy) < 1e-6) return own;
    }
    return std::nullopt;
}

Pose poseOf(const MeasuredOutline& measured, std::vector<VanPoint> corners, const std::vector<ProfilePart>& profile,
            const std::vector<ProfilePart>& sideways) {
    Pose pose;
    const Bounds b = boundsOf(measured.frame);
    pose.foot = b.low;
    if (!profile.empty()) pose.upwards = sectionOverChord(profile, b.height());
    if (!sideways.empty()) pose.lengthways = sectionOverChord(sideways, b.width());
    // The plane's own axes from the surface's coordinates by least squares: x along what its x does.
    const std::size_t n = corners.size();
    std::vector<Point> own;
    Point middle;
    VanPoint centre;
    for (std::size_t k = 0; k < n; ++k) {
        own.push_back(straightened(pose, measured.sides[k].front()).inPlane);
        middle = middle + own[k] * (1.0 / static_cast<double>(n));
        centre = centre + corners[k] * (1.0 / static_cast<double>(n));
    }
    Eigen::Matrix3d between = Eigen::Matrix3d::Zero();
    for (std::size_t k = 0; k < n; ++k) {
        const Point p = own[k] - middle;
        const VanPoint v = corners[k] - centre;
        between += Eigen::Vector3d(v.x, v.y, v.z) * Eigen::RowVector3d(p.x, p.y, 0);
    }
    const Eigen::JacobiSVD<Eigen::Matrix3d> svd(between, Eigen::ComputeFullU | Eigen::ComputeFullV);
    Eigen::Matrix3d turn = svd.matrixU() * svd.matrixV().transpose();
    if (turn.determinant() < 0) {
        Eigen::Matrix3d u = svd.matrixU();
        u.col(2) *= -1;
        turn = u * svd.matrixV().transpose();
    }
    const auto axis = [&](int c) { return VanPoint{turn(0, c), turn(1, c), turn(2, c)}; };
    pose.perX = axis(0);
    pose.perY = axis(1);
    pose.inwards = axis(2);
    pose.origin = centre - pose.perX * middle.x - pose.perY * middle.y;
    pose.corners = std::move(corners);
    return pose;
}

} // namespace westrum
