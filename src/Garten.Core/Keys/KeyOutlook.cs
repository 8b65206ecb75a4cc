using System.Text.Json.Serialization;
using Garten.Core.Characters;
using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>Why a couplet can't be answered today.</summary>
[JsonConverter(typeof(CamelCaseWords<BlockReason>))]
public enum BlockReason
{
    /// <summary>The organ can't be seen at this time of the year.</summary>
    Season,

    /// <summary>A tool is missing.</summary>
    Tool,

    /// <summary>It wants more handling than is allowed.</summary>
    Handling,
}

/// <summary>A couplet that can't be answered today.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="KeyTitle">Title of the key.</param>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="Reason">Why.</param>
/// <param name="Characters">Names of the characters that it wants.</param>
/// <param name="TaxaBehind">How many taxa lie behind it.</param>
public sealed record BlockedCouplet(
    string KeyVersion,
    string KeyTitle,
    string Couplet,
    BlockReason Reason,
    IReadOnlyList<string> Characters,
    int TaxaBehind
);

/// <summary>What awaits one who starts a key today.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="KeyTitle">Its title.</param>
/// <param name="Couplets">How many couplets it has, with those of keys it hands over to.</param>
/// <param name="Taxa">How many taxa it can end at.</param>
/// <param name="Blocked">The couplets that can't be answered, in the order of the keys.</param>
/// <param name="TaxaBlocked">How many taxa lie behind any of them.</param>
public sealed record KeyOutlook(
    string KeyVersion,
    string KeyTitle,
    int Couplets,
    int Taxa,
    IReadOnlyList<BlockedCouplet> Blocked,
    int TaxaBlocked
)
{
    // Another key is proposed where at most this share of what is blocked here is blocked there.
    private const double ClearlyBetter = 0.5;

    /// <summary>Of the keys that stand by themselves the one that can be followed clearly farther today; null where none can, or where
    /// every couplet of this one can be answered.</summary>
    public string? Better { get; init; }

    // Share of its taxa that lie behind couplets that can't be answered.
    private double BlockedShare => TaxaBlocked / (double)Math.Max(1, Taxa);

    /// <summary>Names for each key a better one for today.</summary>
    /// <param name="outlooks">The keys.</param>
    /// <param name="entries">Hashes of those that stand by themselves: only these are proposed.</param>
    public static IReadOnlyList<KeyOutlook> WithBetter(IReadOnlyList<KeyOutlook> outlooks, IReadOnlyCollection<string> entries)
    {
        ArgumentNullException.ThrowIfNull(outlooks);
        return
        [
            .. outlooks.Select(own =>
                own.Blocked.Count > 0
                && outlooks.Where(o => o != own && entries.Contains(o.KeyVersion)).MinBy(o => o.BlockedShare) is { } best
                && best.BlockedShare < own.BlockedShare * ClearlyBetter
                    ? own with
                    {
                        Better = best.KeyVersion,
                    }
                    : own
            ),
        ];
    }

    /// <summary>
    /// Looks ahead. A couplet is blocked where every statement of it is understood and none of the characters that its leads speak of can
    /// be
    /// seen: one that has a statement left as text may always be answered.
    /// </summary>
    /// <param name="shelf">Keys and flora.</param>
    /// <param name="start">Hash of the version to start with.</param>
    /// <param name="day">The day.</param>
    /// <param name="tools">What is at hand; the eye always is.</param>
    /// <param name="most">The most handling that is allowed.</param>
    public static KeyOutlook Of(BenchShelf shelf, string start, DateOnly day, IReadOnlyCollection<Tool> tools, Handling most)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        ArgumentNullException.ThrowIfNull(tools);
        var map = shelf.Map(start, new HashSet<string>(StringComparer.Ordinal));
        var blocked = new List<BlockedCouplet>();
        var behind = new HashSet<string>(StringComparer.Ordinal);
        foreach (var place in map.Order)
        {
            var version = shelf.Keys.Find(place.Version)!;
            var characters = shelf.Wanted(version, place.Couplet).Select(c => shelf.Table.Find(c)!).ToList();
            if (characters.Count == 0)
                continue;
            var reasons = characters.ConvertAll(c => Why(c, shelf.Table, day, tools, most));
            if (reasons.Exists(r => r is null))
                continue;
            var ends = map.Behind(place);
            behind.UnionWith(ends);
            blocked.Add(
                new BlockedCouplet(
                    place.Version,
                    version.Key.Title,
                    place.Couplet,
                    reasons[0]!.Value,
                    [.. characters.Select(c => c.Name)],
                    ends.Length
                )
            );
        }
        return new KeyOutlook(
            start,
            shelf.Keys.Find(start)!.Key.Title,
            map.Order.Count,
            map.Behind(map.Start).Length,
            blocked,
            behind.Count
        );
    }

    private static BlockReason? Why(
        Character character,
        CharacterTable table,
        DateOnly day,
        IReadOnlyCollection<Tool> tools,
        Handling most
    ) =>
        !character.CanBeSeen(day, table.Seasons) ? BlockReason.Season
        : character.Handling > most ? BlockReason.Handling
        : character.Tool != Tool.Eye && !tools.Contains(character.Tool) ? BlockReason.Tool
        : null;
}
