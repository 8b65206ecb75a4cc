using System.Collections.Concurrent;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;

namespace Garten.Core.Evidence;

/// <summary>
/// What taxa are like in a character that nobody has described them in, as far as it follows from what they are described in: a taxon with
/// star-shaped hairs on its twigs has hairy twigs. What is excluded has no share; what is left open has the share that it usually has.
/// </summary>
public sealed class DerivedDescriptions
{
    private readonly BotanyIndex _botany;
    private readonly IReadOnlyList<Character> _characters;
    private readonly Dictionary<string, int> _described = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<string, (string Part, int[] From)> _followsFrom = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<string, IReadOnlyList<Character>> _sources = new(StringComparer.Ordinal);

    // Below this a share is a rounding.
    private const double Least = 1e-9;

    /// <summary>Descriptions that follow within one flora.</summary>
    /// <param name="botany">What one character says of another one.</param>
    /// <param name="characters">The characters that taxa are described in.</param>
    public DerivedDescriptions(BotanyIndex botany, IReadOnlyList<Character> characters)
    {
        ArgumentNullException.ThrowIfNull(botany);
        ArgumentNullException.ThrowIfNull(characters);
        (_botany, _characters) = (botany, characters);
        foreach (var character in characters)
            _described.TryAdd(character.Id, _described.Count);
    }

    /// <summary>The characters that say something of a character, in their order.</summary>
    public IReadOnlyList<Character> Sources(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        if (_sources.TryGetValue(character.Id, out var known))
            return known;
        return _sources[character.Id] = [
            .. _characters.Where(c => c.Id != character.Id && IsOneComposed(c, character) && Bears(c, character)),
        ];
    }

    /// <summary>The part of a character and, as numbers in rising order, the described characters that it follows from; none where taxa are
    /// described in it itself. What is seen of two characters of one part that follow from the same is held against one
    /// description.</summary>
    internal (string Part, int[] From) FollowsFrom(Character character)
    {
        if (_followsFrom.TryGetValue(character.Id, out var known))
            return known;
        return _followsFrom[character.Id] =
            _described.ContainsKey(character.Id) || CharacterId.Read(character.Id) is not { } id
                ? ("", [])
                : (id.Path, [.. Sources(character).Select(s => _described[s.Id]).Order()]);
    }

    // Older characters are what they are to each other by their own tables: what they say of each other is described already.
    private static bool IsOneComposed(Character one, Character other) => CharacterId.IsComposed(one.Id) || CharacterId.IsComposed(other.Id);

    private bool Bears(Character source, Character on) =>
        source.IsQuantity || on.IsQuantity
            ? source.IsQuantity && on.IsQuantity && source.Kind == on.Kind && _botany.Bearing.IsSameMeasure(source.Id, on.Id)
            : _botany.Bearing.Table(source, on) is not null;

    /// <summary>What a taxon is like in a character, by what it is described in; null where nothing follows.</summary>
    /// <param name="character">The character.</param>
    /// <param name="usual">Per state the share that it has where nothing is known; not used for a measured one.</param>
    /// <param name="cellOf">What the taxon is like in one of the <see cref="Sources"/>; null where that is unknown.</param>
    public CharacterDescription? Of(Character character, double[] usual, Func<Character, CharacterDescription?> cellOf)
    {
        ArgumentNullException.ThrowIfNull(character);
        ArgumentNullException.ThrowIfNull(usual);
        ArgumentNullException.ThrowIfNull(cellOf);
        var shares = (double[])usual.Clone();
        var (follows, lacks) = (false, false);
        foreach (var source in Sources(character))
        {
            if (cellOf(source) is not { Applies: true } cell)
                continue;
            if (character.IsQuantity)
                return cell with { Character = character.Id };
            if (cell.States.Count == 0)
                continue;
            var table = _botany.Bearing.Table(source, character)!;
            var isAnyLeft = false;
            for (var s = 0; s < shares.Length; s++)
            {
                var (left, all) = (0d, 0d);
                foreach (var described in cell.States)
                {
                    if (source.IndexOf(described.State) is not (>= 0 and var from))
                        continue;
                    all += described.Share;
                    left += table[from, s] == Botany.Bears.Excludes ? 0 : described.Share;
                    follows |= table[from, s] == Botany.Bears.Excludes;
                }
                shares[s] *= all > 0 ? left / all : 1;
                isAnyLeft |= all <= 0 || left > 0;
            }
            lacks |= !isAnyLeft;
        }
        if (!follows)
            return null;
        var sum = shares.Sum();
        if (sum >= Least)
            return new CharacterDescription(
                character.Id,
                [.. shares.Select((share, s) => new StateShare(character.States[s].Id, share / sum)).Where(s => s.Share > Least)]
            );
        // What one description leaves no state of isn't there at all; where several contradict one another nothing follows.
        return lacks ? new CharacterDescription(character.Id, [], Applies: false) : null;
    }
}
