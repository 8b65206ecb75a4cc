using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;

namespace Garten.Core.Identification;

/// <summary>A state that gives a taxon away on a list.</summary>
/// <param name="Taxon">Id of the taxon.</param>
/// <param name="Character">Id of the character.</param>
/// <param name="State">Id of the state.</param>
/// <param name="Text">In words: "phyllaries: overlapping".</param>
public sealed record Giveaway(string Taxon, string Character, string State, string Text);

/// <summary>What is alone on a list: one look names the plant.</summary>
public static class Giveaways
{
    // It holds on nine plants of ten,
    private const double Holds = 0.9;

    // on the others in fewer than one of twenty,
    private const double Elsewhere = 0.05;

    // and nine observers of ten score it right.
    private const double Reliable = 0.9;

    // How it grows and what kind of fruit it has belong to whole groups: a plant that the list lacks may well share them. What stands
    // behind the dot is the quality, where a character is made of part and quality.
    private static readonly string[] OfWholeGroups = ["growth-form", "fruit-type"];

    private static bool IsOfWholeGroup(string character) => OfWholeGroups.Contains(character[(character.LastIndexOf('.') + 1)..]);

    // No part hangs on another through more steps than this.
    private const int MostNested = 4;

    /// <summary>
    /// States that hold in one taxon of a list and in no other, all others being described in the character, or without the part it is of.
    /// Where a plant grows gives nothing away, nor do its growth form and its kind of fruit: no list says that it is complete for a group.
    /// </summary>
    /// <param name="columns">What the taxa are like.</param>
    /// <param name="listed">Per row whether the taxon is on the list.</param>
    /// <returns>In the order of the taxa, those that take least effort first.</returns>
    public static IReadOnlyList<Giveaway> Of(FloraColumns columns, IReadOnlyList<bool> listed)
    {
        ArgumentNullException.ThrowIfNull(columns);
        ArgumentNullException.ThrowIfNull(listed);
        var found = new List<(int Row, double Effort, Giveaway Giveaway)>();
        var rows = Enumerable.Range(0, columns.Taxa.Count).Where(t => listed[t]).ToArray();
        if (rows.Length < 2)
            return [];
        foreach (var column in columns.Columns)
        {
            var character = column.Character;
            if (character.IsQuantity || character.Reliability < Reliable || character.Organ == Organ.Site)
                continue;
            if (IsOfWholeGroup(character.Id))
                continue;
            if (!Array.TrueForAll(rows, t => column.Of()[t] > 0 || IsWithout(columns, character, t)))
                continue;
            // Where others lack the whole part, to lack it gives nothing away.
            var absent = Array.Exists(rows, t => column[t] is not { Applies: true }) ? EvidenceItem.AbsentState(character) : -1;
            foreach (var state in character.States.Where((_, at) => at != absent))
            {
                var holder = -1;
                var isAlone = true;
                foreach (var t in rows)
                {
                    if (column[t] is not { Applies: true } cell)
                        continue;
                    // What is only said to be alternate may be any kind of it.
                    var share = cell.States.Where(s => character.MayBe(s.State, state.Id)).Sum(s => s.Share);
                    if (cell.Misread?.Contains(state.Id) == true)
                        share = Math.Max(share, DescriptionCell.MisreadShare);
                    if (share >= Holds && holder < 0)
                        holder = t;
                    else if (share > Elsewhere)
                        isAlone = false;
                }
                if (holder >= 0 && isAlone)
                    found.Add(
                        (
                            holder,
                            Contrast.Effort(character),
                            new Giveaway(columns.Taxa[holder], character.Id, state.Id, $"{character.Name}: {state.Name}")
                        )
                    );
            }
        }
        return
        [
            .. found
                .OrderBy(f => f.Row)
                .ThenBy(f => f.Effort)
                .ThenBy(f => f.Giveaway.Character, StringComparer.Ordinal)
                .Select(f => f.Giveaway),
        ];
    }

    // The part exists only where another character has certain states, and this taxon never has them; or hasn't that part either.
    private static bool IsWithout(FloraColumns columns, Character character, int row, int depth = 0)
    {
        if (character.Needs is not { } needs || depth > MostNested || columns.Find(needs.Character) is not { } controller)
            return false;
        if (controller[row] is not { } cell)
            return IsWithout(columns, controller.Character, row, depth + 1);
        return !cell.Applies || cell.States.Count > 0 && !cell.States.Any(s => needs.States.Contains(s.State));
    }
}
