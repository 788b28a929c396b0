package org.zephyrmist.core.cartridge;

import org.w3c.dom.Element;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.question.Assessment;
import org.zephyrmist.core.question.QtiReader;

/** Questions of a quiz or bank from the file that is kept of them. */
public final class StoredQuestions {
  private StoredQuestions() {}

  /**
   * The questions with their references as they are kept.
   *
   * @throws CartridgeException if it is no QTI
   */
  public static Assessment read(String name, byte[] qti) throws CartridgeException {
    Element root = new Xml.Parser(Limits.DEFAULT.depth()).parse(name, qti);
    return QtiReader.read(root, Html::canonical);
  }
}
