package yarrek.core.geo;

import org.locationtech.jts.algorithm.LineIntersector;
import org.locationtech.jts.algorithm.RobustLineIntersector;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.noding.MCIndexNoder;
import org.locationtech.jts.noding.SegmentIntersector;
import org.locationtech.jts.noding.SegmentString;
import org.locationtech.jts.noding.SegmentStringUtil;

/**
 * Whether the sides of an outline cross so often that repairing it means nothing. Counting ends at the limit, so that the
 * worst of outlines is told in the time of a good one.
 */
final class Tangle implements SegmentIntersector {
    /** A slip of the hand crosses once or twice, a badly traced shore some dozen times. */
    static final int MOST_CROSSINGS = 200;

    private final LineIntersector lines = new RobustLineIntersector();
    private int crossings;

    static boolean is(Geometry whole) {
        Tangle t = new Tangle();
        new MCIndexNoder(t).computeNodes(SegmentStringUtil.extractNodedSegmentStrings(whole));
        return t.isDone();
    }

    @Override
    public void processIntersections(SegmentString one, int i, SegmentString other, int j) {
        if (one == other && i == j) {
            return;
        }
        lines.computeIntersection(
                one.getCoordinate(i), one.getCoordinate(i + 1), other.getCoordinate(j), other.getCoordinate(j + 1));
        if (lines.hasIntersection() && lines.isProper()) {
            crossings++;
        }
    }

    @Override
    public boolean isDone() {
        return crossings > MOST_CROSSINGS;
    }
}
