using System.Globalization;
using System.Text;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Language;

namespace Garten.Core.Keys;

/// <summary>
/// A flora made of a key's own statements: its taxa described by what its leads say of them, so that they can be sifted and contrasted.
/// What isn't read still tells them apart: the wordings of a couplet are a character of their own, with the leads' texts as its states.
/// </summary>
public static class KeyFlora
{
    /// <summary>What ids of characters begin with that are the wordings of a couplet.</summary>
    public const string Wording = "couplet-";

    // A careful observer answers a couplet in words he knows rightly about as often as he sees a coarse state rightly.
    private const double WordingReliability = 0.85;
    private const int WordingSeconds = 30;

    // Names of states that are longer are cut; the whole text stands in the definition.
    private const int LongestName = 90;

    /// <summary>Makes it.</summary>
    /// <param name="shelf">The shelf that has the key.</param>
    /// <param name="version">The version.</param>
    /// <param name="id">Id of the flora.</param>
    public static Flora Of(BenchShelf shelf, KeyVersion version, string id)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        ArgumentNullException.ThrowIfNull(version);
        var map = shelf.Map(version.Hash, new HashSet<string>(StringComparer.Ordinal));
        var names = map.Behind(map.Start);
        var ids = Ids(names);
        var described = shelf.Provisional(version.Hash);
        var wordings = Wordings(shelf, map, out var ofName);
        var characters = described
            .Values.SelectMany(d => d.Characters)
            .Select(c => c.Character)
            .Distinct(StringComparer.Ordinal)
            .Order(StringComparer.Ordinal)
            .Select(shelf.Table.Find)
            .OfType<Character>()
            .Concat(wordings)
            .ToList();
        var descriptions = names.Select(name => new TaxonDescription(
            ids[name],
            [.. described.GetValueOrDefault(name)?.Characters ?? [], .. ofName.GetValueOrDefault(name) ?? []],
            true
        ));
        return new Flora(
            id,
            version.Key.Title.Length > 0 ? version.Key.Title : "A key without a title",
            [
                .. names.Select(name => new Taxon(
                    ids[name],
                    name,
                    "",
                    name.Contains(' ', StringComparison.Ordinal) ? "species" : "genus",
                    "",
                    "",
                    "",
                    [],
                    ""
                )),
            ],
            new CharacterTable(characters, [.. descriptions], shelf.Table.Seasons)
        );
    }

    // Per couplet that isn't wholly read, its wordings as a character, and per name which of them it has.
    private static List<Character> Wordings(BenchShelf shelf, KeyMap map, out Dictionary<string, List<CharacterDescription>> ofName)
    {
        var made = new List<Character>();
        ofName = new(StringComparer.Ordinal);
        foreach (var place in map.InOrder)
        {
            var version = shelf.Keys.Find(place.Version)!;
            var readings = shelf.Readings(version, place.Couplet);
            var texts = readings.Select(Unread).ToList();
            // Where one lead says nothing that isn't weighed, the couplet has no two wordings to hold against each other.
            if (texts.Count < 2 || texts.Exists(t => t.Length == 0) || texts.Distinct(StringComparer.Ordinal).Count() < texts.Count)
                continue;
            var id = string.Create(CultureInfo.InvariantCulture, $"{Wording}{made.Count + 1}");
            var states = texts.Select((text, l) => new CharacterState($"lead-{l + 1}", Short(text), text, [])).ToList();
            var organ = readings
                .SelectMany(l => l)
                .SelectMany(s => s.Claims)
                .Select(c => shelf.Table.Find(c.Character)?.Organ)
                .FirstOrDefault(o => o is not null);
            made.Add(
                new Character(
                    id,
                    $"Couplet {place.Couplet}, in its own words",
                    organ ?? Organ.Habit,
                    CharacterKind.Categorical,
                    states,
                    [],
                    [],
                    WordingReliability,
                    1,
                    WordingSeconds,
                    Tool.Eye,
                    Handling.Look,
                    [],
                    Definition: "What the leads of this couplet say, as far as it isn't read in parts and qualities."
                )
            );
            var steps = map.Steps(place);
            foreach (var name in steps.SelectMany(map.Behind).Distinct(StringComparer.Ordinal))
            {
                var leads = Enumerable.Range(0, steps.Length).Where(l => map.Behind(steps[l]).Contains(name)).ToList();
                if (!ofName.TryGetValue(name, out var own))
                    ofName[name] = own = [];
                own.Add(new CharacterDescription(id, [.. leads.Select(l => new StateShare(states[l].Id, 1d / leads.Count))]));
            }
        }
        return made;
    }

    private static string Unread(IReadOnlyList<StatementReading> lead) =>
        string.Join("; ", lead.Where(s => s.Claims.Count == 0).Select(s => s.Text));

    private static string Short(string text) =>
        text.Length <= LongestName ? text : string.Concat(text.AsSpan(0, LongestName - 1).TrimEnd(), "…");

    // Ids of small letters, digits and hyphens; of two names that give the same one the later is numbered.
    private static Dictionary<string, string> Ids(IEnumerable<string> names)
    {
        var ids = new Dictionary<string, string>(StringComparer.Ordinal);
        var taken = new HashSet<string>(StringComparer.Ordinal);
        foreach (var name in names)
        {
            var plain = new StringBuilder();
            foreach (var c in name.ToLowerInvariant().Normalize(NormalizationForm.FormD))
            {
                if (char.IsAsciiLetterOrDigit(c))
                    plain.Append(c);
                else if (plain.Length > 0 && plain[^1] != '-' && CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
                    plain.Append('-');
            }
            var id = plain.ToString().Trim('-') is { Length: > 0 } made ? made : "taxon";
            for (var n = 2; !taken.Add(id); n++)
                id = string.Create(CultureInfo.InvariantCulture, $"{plain.ToString().Trim('-')}-{n}");
            ids[name] = id;
        }
        return ids;
    }
}
