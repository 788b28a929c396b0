package org.zephyrmist.core.delivery;

import java.util.Optional;
import org.zephyrmist.core.content.Fingerprints;

/**
 * What a step knows of its item, side by side.
 *
 * @param base what the shell showed after the last delivery; none if it never came
 * @param here what the shell has now; none if it does not hold it
 * @param version what the version means for this section; none if it is no longer in it
 * @param becomes what it is after the step; none if the shell will not hold it. Where it comes from
 *     (the version, the section, a merge, a decision) is not the step's business: whatever is
 *     written is found by these fingerprints.
 */
public record Sides(
    Optional<Fingerprints> base,
    Optional<Fingerprints> here,
    Optional<Fingerprints> version,
    Optional<Fingerprints> becomes) {}
