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
    /// be seen: one that has a statement left as text may always be answered.
    /// </summary>
    /// <param name="shelf">Keys and flora.</param>
    /// <param name="start">Hash of the version to start with.</param>
    /// <param name="day">The day.</param>
    /// <param name="tools">What is at hand; the eye always is.</param>
    /// <param name="most">The most handling that is allowed.</param>
    public static KeyOutlook Of(BenchShelf shelf, string start, DateOnly day, IReadOnlyCollection<Tool> tools, Handling most) =>
        new Obstacles(shelf, day, tools, most).Before(start);

    /// <summary>The same of every key of a shelf that has a couplet, in the shelf's order.</summary>
    /// <param name="shelf">Keys and flora.</param>
    /// <param name="day">The day.</param>
    /// <param name="tools">What is at hand; the eye always is.</param>
    /// <param name="most">The most handling that is allowed.</param>
    public static IReadOnlyList<KeyOutlook> OfAll(BenchShelf shelf, DateOnly day, IReadOnlyCollection<Tool> tools, Handling most)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        var obstacles = new Obstacles(shelf, day, tools, most);
        return [.. shelf.Keys.Versions.Where(v => v.Key.Couplets.Count > 0).Select(v => obstacles.Before(v.Hash))];
    }

    // What is in the way on one day with some tools. Keys hand over to each other: each couplet and character is looked at once.
    private sealed class Obstacles(BenchShelf shelf, DateOnly day, IReadOnlyCollection<Tool> tools, Handling most)
    {
        private readonly Dictionary<string, BlockReason?> _characters = new(StringComparer.Ordinal);
        private readonly Dictionary<KeyPlace, BlockedCouplet?> _couplets = [];

        public KeyOutlook Before(string start)
        {
            var map = shelf.Map(start, new HashSet<string>(StringComparer.Ordinal));
            var blocked = new List<BlockedCouplet>();
            var behind = new HashSet<string>(StringComparer.Ordinal);
            foreach (var place in map.Order)
            {
                if (!_couplets.TryGetValue(place, out var couplet))
                    _couplets[place] = couplet = At(place);
                if (couplet is null)
                    continue;
                var ends = map.Behind(place);
                behind.UnionWith(ends);
                blocked.Add(couplet with { TaxaBehind = ends.Length });
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

        private BlockedCouplet? At(KeyPlace place)
        {
            var version = shelf.Keys.Find(place.Version)!;
            var wanted = shelf.Wanted(version, place.Couplet);
            // The first that can be seen ends it.
            return wanted.Count == 0 || wanted.Any(c => ReasonOf(c) is null)
                ? null
                : new BlockedCouplet(
                    place.Version,
                    version.Key.Title,
                    place.Couplet,
                    ReasonOf(wanted[0])!.Value,
                    [.. wanted.Select(c => shelf.Table.Find(c)!.Name)],
                    0
                );
        }

        private BlockReason? ReasonOf(string character)
        {
            if (!_characters.TryGetValue(character, out var reason))
                _characters[character] = reason = Why(shelf.Table.Find(character)!);
            return reason;
        }

        private BlockReason? Why(Character character) =>
            !character.CanBeSeen(day, shelf.Table.Seasons) ? BlockReason.Season
            : character.Handling > most ? BlockReason.Handling
            : character.Tool != Tool.Eye && !tools.Contains(character.Tool) ? BlockReason.Tool
            : null;
    }
}
