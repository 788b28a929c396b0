package org.zephyrmist.core.roster;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zephyrmist.core.roster.Roster.Remark;
import org.zephyrmist.core.roster.Roster.Teaching;

/**
 * What taking a roster in would do, within a reach; everything else stays as it is.
 *
 * @param programs new or renamed
 * @param campuses new or renamed
 * @param terms new or changed
 * @param courses new or changed
 * @param added sections that are new
 * @param changed sections that are other than before
 * @param back sections that an earlier roster had lost
 * @param ended sections that are kept and marked, because this roster has them no longer
 * @param same how many sections are as they were
 * @param people teachers, new or renamed; without an address that is another's
 * @param teach who teaches from now on
 * @param leave who no longer teaches
 * @param stripped sections that lose all their teachers and get none
 * @param students enrolled, by section
 * @param parts in which part of its term a section is taught
 * @param remarks of the reading and of the reach
 * @param asks what has to be confirmed in so many words, since it ends or changes much
 */
public record RosterPlan(
    List<Roster.Org> programs,
    List<Roster.Org> campuses,
    List<Roster.Term> terms,
    List<Roster.Course> courses,
    List<Roster.Section> added,
    List<Roster.Section> changed,
    Set<String> back,
    Set<String> ended,
    int same,
    List<Roster.Person> people,
    Set<Teaching> teach,
    Set<Teaching> leave,
    Set<String> stripped,
    Map<String, Integer> students,
    Map<String, Roster.Part> parts,
    List<Remark> remarks,
    List<String> asks) {}
