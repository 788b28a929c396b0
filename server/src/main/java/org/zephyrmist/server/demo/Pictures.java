package org.zephyrmist.server.demo;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import javax.imageio.ImageIO;

/** Figures and sheets for the demo courses. */
final class Pictures {
  private Pictures() {}

  static String toolName(String host) {
    return switch (host) {
      case "cuebench" -> "CueBench";
      case "earshot" -> "Earshot";
      case "tagout" -> "TagOut";
      case "patternroom" -> "PatternRoom";
      case "flyfloor" -> "FlyFloor";
      default -> "PromptDesk";
    };
  }

  /** A bar with lanterns and their beams, different for each seed. */
  static byte[] png(long seed) {
    Random random = new Random(seed);
    BufferedImage image = new BufferedImage(480, 220, BufferedImage.TYPE_INT_RGB);
    Graphics2D g = image.createGraphics();
    g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
    g.setColor(new Color(0xf4f1e8));
    g.fillRect(0, 0, 480, 220);
    for (int i = 0; i < 5; i++) {
      int x = 60 + i * 90;
      int to = x + random.nextInt(120) - 60;
      g.setColor(new Color(200 + random.nextInt(50), 170 + random.nextInt(50), 90, 90));
      g.fillPolygon(new int[] {x, to - 46, to + 46}, new int[] {36, 190, 190}, 3);
      g.setColor(new Color(0x2b3a3a));
      g.fillRect(x - 9, 22, 18, 16);
    }
    g.setStroke(new BasicStroke(3));
    g.drawLine(20, 22, 460, 22);
    g.drawLine(20, 192, 460, 192);
    g.dispose();
    try {
      ByteArrayOutputStream out = new ByteArrayOutputStream();
      ImageIO.write(image, "png", out);
      return out.toByteArray();
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  /** One page of PDF 1.4. */
  static byte[] pdf(String title, List<String> lines) {
    StringBuilder text = new StringBuilder("BT /F 18 Tf 60 760 Td (" + ascii(title) + ") Tj ET\n");
    int y = 720;
    for (String line : lines) {
      text.append("BT /F 11 Tf 60 ")
          .append(y)
          .append(" Td (")
          .append(ascii(line))
          .append(") Tj ET\n");
      y -= 22;
    }
    List<String> objects =
        List.of(
            "<</Type/Catalog/Pages 2 0 R>>",
            "<</Type/Pages/Kids[3 0 R]/Count 1>>",
            "<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents 4 0 R"
                + "/Resources<</Font<</F 5 0 R>>>>>>",
            "<</Length " + text.length() + ">>stream\n" + text + "endstream",
            "<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>");
    StringBuilder pdf = new StringBuilder("%PDF-1.4\n");
    List<Integer> at = new ArrayList<>();
    for (int i = 0; i < objects.size(); i++) {
      at.add(pdf.length());
      pdf.append(i + 1).append(" 0 obj").append(objects.get(i)).append("endobj\n");
    }
    int xref = pdf.length();
    pdf.append("xref\n0 6\n0000000000 65535 f \n");
    at.forEach(n -> pdf.append(String.format("%010d 00000 n \n", n)));
    pdf.append("trailer<</Size 6/Root 1 0 R>>\nstartxref\n").append(xref).append("\n%%EOF");
    return pdf.toString().getBytes(StandardCharsets.ISO_8859_1);
  }

  private static String ascii(String s) {
    return s.replaceAll("[()\\\\]", "").replaceAll("[^\\x20-\\x7e]", "-");
  }
}
