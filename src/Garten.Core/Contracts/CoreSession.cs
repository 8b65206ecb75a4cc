using Garten.Core.Botany;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Core.Packs;

namespace Garten.Core.Contracts;

/// <summary>What a host holds while it answers: the browser's worker one for all its calls, the server one for each request.</summary>
public sealed class CoreSession
{
    private Shelf? _filled;
    private BenchShelf? _shelf;
    private ReadyFlora? _flora;
    private BotanyIndex? _botany;
    private IReadOnlyList<KeyVersion> _waiting = [];

    /// <summary>The keys that are followed; made ready when they are first wanted.</summary>
    public BenchShelf Shelf
    {
        get => _shelf ??= (_filled ?? new Shelf([], [], CharacterTable.Empty, [], [])).With(_waiting).Ready(_botany);
        set => _shelf = value;
    }

    /// <summary>The flora that is sifted; null before one was loaded.</summary>
    public ReadyFlora? Flora
    {
        get => _flora;
        set => _flora = _botany is null ? value : value?.With(_botany);
    }

    /// <summary>Parts and qualities; null before they were loaded. Shelf and flora count looks at them from then on.</summary>
    public BotanyIndex? Botany
    {
        get => _botany;
        set
        {
            _botany = value;
            _flora?.With(value);
            FillAnew();
        }
    }

    /// <summary>Puts key versions and taxa on the shelf, in place of those that were there.</summary>
    public void Fill(Shelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        _filled = shelf;
        FillAnew();
    }

    /// <summary>Puts keys that wait on the device to be sent on the shelf too, now and whenever it is filled, in place of those that waited
    /// before.</summary>
    internal void Shelve(IReadOnlyList<KeyVersion> waiting)
    {
        if (_waiting.Select(k => k.Hash).SequenceEqual(waiting.Select(k => k.Hash), StringComparer.Ordinal))
            return;
        _waiting = waiting;
        FillAnew();
    }

    // One that was set as a whole stays until keys are put on it.
    private void FillAnew()
    {
        if (_filled is not null || _waiting.Count > 0)
            _shelf = null;
    }

    private SearchedThings _searched = new([], [], []);
    private (SearchedThings Things, ReadyFlora? Flora, SearchIndex Index)? _index;

    /// <summary>What is searched besides the flora and the glossary.</summary>
    public SearchedThings Searched
    {
        get => _searched;
        set => _searched = value ?? throw new ArgumentNullException(nameof(value));
    }

    // Made ready once for the same things and the same flora.
    internal SearchIndex IndexWith(string? floraId)
    {
        var flora = floraId is { Length: > 0 } && _flora?.Pack.Id == floraId ? _flora : null;
        if (_index is not { } known || known.Things != _searched || known.Flora != flora)
            _index = known = (
                _searched,
                flora,
                new SearchIndex(_searched.All().Concat((flora?.Pack.Taxa ?? []).Select(t => Findable.Of(t, floraId ?? ""))))
            );
        return known.Index;
    }

    private IEnumerator<bool>? _ahead;

    /// <summary>Works out some more of what later answers need; false when all is ready. A host calls it while it isn't asked
    /// anything: it takes an interpreted core no longer than a call may wait.</summary>
    /// <param name="characters">How many characters of the flora are made ready at most.</param>
    public bool WarmUp(int characters)
    {
        if (_filled is not null && _shelf is null)
        {
            _ = Shelf;
            return true;
        }
        _ahead ??= _filled is null ? null : KeyWarmUp.StepsOf(this).GetEnumerator();
        return _ahead?.MoveNext() == true || Flora?.Sifter.WarmUp(characters) == true;
    }

    internal BotanyIndex Loaded() => _botany ?? throw new InvalidOperationException("The vocabulary isn't loaded.");

    internal ReadyFlora Loaded(string floraId) =>
        Flora is { } flora && flora.Pack.Id == floraId ? flora : throw new InvalidOperationException("This flora isn't loaded.");
}
