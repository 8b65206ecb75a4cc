using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Identification;

/// <summary>
/// What the taxa of a flora are like, character by character: the form in which a whole flora is weighed at once. A column holds each
/// distinct cell once and per taxon which of them it has, so that a likelihood is worked out per cell and not per taxon.
/// </summary>
public sealed class FloraColumns
{
    private readonly Dictionary<string, int> _taxa;
    private readonly Dictionary<string, int> _byId;

    /// <summary>Makes it of columns that are ready.</summary>
    /// <param name="taxa">Ids of the described taxa, in the order of the columns' rows.</param>
    /// <param name="columns">A column per character, each with a row per taxon.</param>
    public FloraColumns(IReadOnlyList<string> taxa, IReadOnlyList<CharacterColumn> columns)
    {
        ArgumentNullException.ThrowIfNull(taxa);
        ArgumentNullException.ThrowIfNull(columns);
        Taxa = taxa;
        Columns = columns;
        _taxa = new(taxa.Count, StringComparer.Ordinal);
        for (var t = 0; t < taxa.Count; t++)
            _taxa.Add(taxa[t], t);
        _byId = new(columns.Count, StringComparer.Ordinal);
        for (var c = 0; c < columns.Count; c++)
            _byId.Add(columns[c].Character.Id, c);
    }

    /// <summary>Makes it of descriptions, those of genera and forms completed.</summary>
    public static FloraColumns Of(IReadOnlyList<Character> characters, IReadOnlyList<TaxonDescription> complete)
    {
        ArgumentNullException.ThrowIfNull(characters);
        ArgumentNullException.ThrowIfNull(complete);
        var rows = characters.ToDictionary(c => c.Id, _ => new CharacterDescription?[complete.Count], StringComparer.Ordinal);
        for (var t = 0; t < complete.Count; t++)
        {
            foreach (var cell in complete[t].Characters)
            {
                if (rows.TryGetValue(cell.Character, out var row))
                    row[t] = cell;
            }
        }
        return new FloraColumns([.. complete.Select(d => d.Taxon)], [.. characters.Select(c => CharacterColumn.Of(c, rows[c.Id]))]);
    }

    /// <summary>Ids of the described taxa.</summary>
    public IReadOnlyList<string> Taxa { get; }

    /// <summary>The columns, in the order of the characters.</summary>
    public IReadOnlyList<CharacterColumn> Columns { get; }

    /// <summary>Row of a taxon; -1 where it isn't described.</summary>
    public int IndexOf(string taxon) => _taxa.GetValueOrDefault(taxon, -1);

    /// <summary>The column of a character; null where there is none.</summary>
    public CharacterColumn? Find(string character) => IndexOfCharacter(character) is >= 0 and var c ? Columns[c] : null;

    /// <summary>Place of a character's column; -1 where there is none.</summary>
    public int IndexOfCharacter(string character) => _byId.GetValueOrDefault(character, -1);

    /// <summary>What a taxon is like in a character; null where unknown.</summary>
    public CharacterDescription? Describe(string taxon, string character) =>
        IndexOf(taxon) is >= 0 and var t && Find(character) is { } column ? column[t] : null;
}

/// <summary>What the taxa are like in one character: the distinct cells, and which of them each taxon has.</summary>
public sealed class CharacterColumn
{
    private readonly ushort[] _of;
    private readonly bool[] _applies;
    private RangeColumn? _ranges;
    private int[]? _counts;
    private double[]? _shares;
    private int[]? _lacking;
    private readonly Lazy<(double Low, double High)?> _span;

    /// <summary>Makes it of cells that are ready.</summary>
    /// <param name="character">The character.</param>
    /// <param name="cells">The distinct cells.</param>
    /// <param name="of">Per taxon the number of its cell, from 1; 0 where it isn't described.</param>
    /// <param name="applies">Per cell whether the part is there, where it is known without looking into the cells.</param>
    public CharacterColumn(Character character, IReadOnlyList<CharacterDescription> cells, ushort[] of, bool[]? applies = null)
    {
        ArgumentNullException.ThrowIfNull(cells);
        ArgumentNullException.ThrowIfNull(of);
        Character = character;
        Cells = cells;
        _of = of;
        _span = new(Span);
        _applies = applies ?? [.. cells.Select(c => c.Applies)];
    }

    /// <summary>Makes it of a cell per taxon; null where unknown.</summary>
    public static CharacterColumn Of(Character character, IReadOnlyList<CharacterDescription?> rows)
    {
        ArgumentNullException.ThrowIfNull(rows);
        var known = new Dictionary<CharacterDescription, ushort>(new SameCell());
        var cells = new List<CharacterDescription>();
        var of = new ushort[rows.Count];
        for (var t = 0; t < of.Length; t++)
        {
            if (rows[t] is not { } cell)
                continue;
            if (!known.TryGetValue(cell, out var number))
            {
                cells.Add(cell);
                known.Add(cell, number = checked((ushort)cells.Count));
            }
            of[t] = number;
        }
        return new CharacterColumn(character, cells, of);
    }

    /// <summary>The character.</summary>
    public Character Character { get; }

    /// <summary>The distinct cells.</summary>
    public IReadOnlyList<CharacterDescription> Cells { get; }

    /// <summary>Per taxon the number of its cell, from 1; 0 where it isn't described.</summary>
    public ReadOnlySpan<ushort> Of() => _of;

    /// <summary>How many taxa have each cell, by its number; the first counts those that aren't described.</summary>
    public int[] Counts => _counts ??= CountsOf(_of, Cells.Count);

    private static int[] CountsOf(ushort[] of, int cells)
    {
        var counts = new int[cells + 1];
        foreach (var cell in of)
            counts[cell]++;
        return counts;
    }

    /// <summary>How many taxa have each cell, from the first one that is described, as weights to add up by.</summary>
    internal ReadOnlySpan<double> Shares() => _shares ??= Array.ConvertAll(Counts[1..], count => (double)count);

    private double[][]? _stateShares;
    private double[]? _usual;
    private double? _shadeFactor;

    /// <summary>Per state of the character the share that the taxa of a cell have it with; made once.</summary>
    /// <param name="cell">The cell, from 0.</param>
    internal double[] SharesOf(int cell)
    {
        _stateShares ??= new double[Cells.Count][];
        return _stateShares[cell] ??= Likelihood.Shares(Character, Cells[cell]);
    }

    /// <summary>Per state its share among the taxa that have the part, with one share of what is alike everywhere.</summary>
    internal double[] Usual => _usual ??= UsualShares();

    private double[] UsualShares()
    {
        var usual = new double[Character.States.Count];
        for (var c = 0; c < Cells.Count; c++)
        {
            if (!_applies[c])
                continue;
            var shares = SharesOf(c);
            for (var s = 0; s < usual.Length; s++)
                usual[s] += Counts[c + 1] * shares[s];
        }
        for (var s = 0; s < usual.Length; s++)
            usual[s] = (usual[s] + 1d / usual.Length) / (Having + 1);
        return usual;
    }

    private (CharacterDescription, int)[]? _inContexts;

    /// <summary>The cells that speak of other contexts, with how many taxa have each.</summary>
    internal IReadOnlyList<(CharacterDescription Cell, int Taxa)> InContexts =>
        _inContexts ??= [
            .. Enumerable.Range(0, Cells.Count).Where(c => Cells[c].Contexts is not null).Select(c => (Cells[c], Counts[c + 1])),
        ];

    /// <summary>By how much leaves of the shade exceed those of the sun here.</summary>
    internal double ShadeFactor(EvidenceOptions options) => _shadeFactor ??= Likelihood.ShadeFactor(Cells, options);

    /// <summary>How many taxa are described.</summary>
    internal int Known => _of.Length - Counts[0];

    /// <summary>How many taxa are described and have the part.</summary>
    internal int Having
    {
        get
        {
            var having = Known;
            foreach (var cell in Lacking())
                having -= Counts[cell + 1];
            return having;
        }
    }

    /// <summary>The cells, from 0, whose taxa haven't the part.</summary>
    internal ReadOnlySpan<int> Lacking() => _lacking ??= [.. Enumerable.Range(0, _applies.Length).Where(cell => !_applies[cell])];

    /// <summary>Whether the taxa of a cell have the part at all; a cell of a large flora is not made for it.</summary>
    /// <param name="cell">The cell, from 0.</param>
    public bool Applies(int cell) => _applies[cell];

    /// <summary>The distributions of the ranges, cell by cell. They are made when a measure is first weighed, and kept: few are measured of
    /// a plant.</summary>
    internal RangeColumn Ranges(RangeOptions options) =>
        _ranges ??= new RangeColumn([.. Cells.Select((cell, c) => _applies[c] ? cell.Range : null)], options);

    /// <summary>What a taxon is like; null where unknown.</summary>
    public CharacterDescription? this[int taxon] => _of[taxon] is var cell and > 0 ? Cells[cell - 1] : null;

    /// <summary>The least and the largest that is described; null where nothing is.</summary>
    public (double Low, double High)? Described => _span.Value;

    private (double Low, double High)? Span()
    {
        double low = double.PositiveInfinity,
            high = double.NegativeInfinity;
        foreach (var cell in Cells)
        {
            if (!cell.Applies || cell.Range is not { } range)
                continue;
            low = Math.Min(low, range.LowExtreme ?? range.Low);
            high = Math.Max(high, range.HighExtreme ?? range.High);
        }
        return low <= high ? (low, high) : null;
    }

    // Lists in records are compared by identity: here two cells are the same that say the same.
    private sealed class SameCell : IEqualityComparer<CharacterDescription>
    {
        public bool Equals(CharacterDescription? x, CharacterDescription? y) =>
            x!.Applies == y!.Applies
            && Equals(x.Range, y.Range)
            && Equals(x.Shade, y.Shade)
            && x.States.SequenceEqual(y.States)
            && (x.Misread ?? []).SequenceEqual(y.Misread ?? [], StringComparer.Ordinal)
            && Same(x.Contexts ?? [], y.Contexts ?? [], (a, b) =>
                a.When == b.When && Equals(a.Range, b.Range) && a.States.SequenceEqual(b.States)
            )
            && Same(x.Sets ?? [], y.Sets ?? [], (a, b) =>
                a.Share.Equals(b.Share) && a.States.SequenceEqual(b.States, StringComparer.Ordinal)
            );

        private static bool Same<T>(IReadOnlyList<T> x, IReadOnlyList<T> y, Func<T, T, bool> alike) =>
            x.Count == y.Count && x.Zip(y, alike).All(same => same);

        public int GetHashCode(CharacterDescription obj)
        {
            var hash = HashCode.Combine(obj.Applies, obj.Range, obj.Shade, obj.States.Count);
            foreach (var state in obj.States)
                hash = HashCode.Combine(hash, state);
            return hash;
        }
    }
}
