package yarrek.app.print;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import java.util.Map;

/** A QR code as the outline of its dark modules, on a square of {@code size} modules. */
public record QrCode(String path, int size) {

    /** @throws IllegalArgumentException when the text is longer than some hundred characters */
    public static QrCode of(String text) {
        try {
            BitMatrix m =
                    new QRCodeWriter().encode(text, BarcodeFormat.QR_CODE, 0, 0, Map.of(EncodeHintType.MARGIN, 2));
            StringBuilder path = new StringBuilder();
            for (int y = 0; y < m.getHeight(); y++) {
                for (int x = 0; x < m.getWidth(); x++) {
                    if (m.get(x, y)) {
                        path.append('M').append(x).append(' ').append(y).append("h1v1h-1z");
                    }
                }
            }
            return new QrCode(path.toString(), m.getWidth());
        } catch (WriterException e) {
            throw new IllegalArgumentException("too long for a QR code: " + text.length() + " characters", e);
        }
    }
}
