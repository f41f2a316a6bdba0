package underbaton.web.venue;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import java.util.Map;

/** A text as a QR code (ISO/IEC 18004), to be drawn as SVG. */
final class QrCode {

    /** Clear space that a reader needs around it (ISO/IEC 18004, section 9.1). */
    private static final int QUIET = 4;

    private QrCode() {}

    /** @param size of its side with what is left clear around it, in squares */
    record Drawing(int size, String path) {}

    static Drawing of(String text) {
        BitMatrix squares;
        try {
            squares =
                    new QRCodeWriter().encode(text, BarcodeFormat.QR_CODE, 0, 0, Map.of(EncodeHintType.MARGIN, QUIET));
        } catch (WriterException tooLong) {
            throw new IllegalArgumentException("no address is as long as this", tooLong);
        }
        StringBuilder path = new StringBuilder();
        for (int y = 0; y < squares.getHeight(); y++) {
            for (int x = 0; x < squares.getWidth(); x++) {
                if (squares.get(x, y)) {
                    path.append('M').append(x).append(' ').append(y).append("h1v1h-1z");
                }
            }
        }
        return new Drawing(squares.getWidth(), path.toString());
    }
}
