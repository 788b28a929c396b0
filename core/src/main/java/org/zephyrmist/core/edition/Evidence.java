package org.zephyrmist.core.edition;

/**
 * Why two items are taken for one; each from 0 to 1.
 *
 * @param identifier whether their maker gives both one identifier
 * @param equal whether wording and launch are the same to the letter
 * @param text how alike what they say is
 * @param title how alike their titles are
 * @param neighbours how alike what stands around them is
 * @param together all of it
 */
public record Evidence(
    boolean identifier,
    boolean equal,
    double text,
    double title,
    double neighbours,
    double together) {}
