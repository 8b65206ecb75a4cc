using System.Globalization;

namespace Garten.Core.Floras;

/// <summary>A position as it may leave the program.</summary>
/// <param name="Cell">The grid cell that it is given as; empty where there is none, and then no position is given at all.</param>
/// <param name="Latitude">Of the cell's middle; null where no position is given.</param>
/// <param name="Longitude">Of the cell's middle.</param>
/// <param name="UncertaintyMetres">From the cell's middle to its corners.</param>
/// <param name="Generalization">What was done to the position, in a sentence.</param>
/// <param name="Withheld">What is kept back and why, in a sentence.</param>
public sealed record CoarsePosition(
    string Cell,
    double? Latitude,
    double? Longitude,
    double? UncertaintyMetres,
    string Generalization,
    string Withheld
);

/// <summary>
/// Which names stand for taxa whose exact places are kept back, and what is told of those instead. A name is one of them where it, what it
/// belongs to or anything below it is sensitive: a plant named by its genus may be the rare species. One among several open names is
/// enough.
/// </summary>
public sealed class SensitiveTaxa
{
    private readonly Dictionary<string, FloraGrid?> _gridOf = new(StringComparer.OrdinalIgnoreCase);
    private readonly List<FloraGrid> _grids = [];
    private readonly List<Flora> _floras;

    /// <summary>Works it out for several floras together.</summary>
    public SensitiveTaxa(IEnumerable<Flora> floras)
    {
        ArgumentNullException.ThrowIfNull(floras);
        _floras = [.. floras];
        foreach (var flora in _floras)
        {
            var byId = flora.Taxa.ToDictionary(t => t.Id, StringComparer.Ordinal);
            var marked = flora.Taxa.Where(t => t.Facts?.IsSensitive == true).Select(t => t.Id).ToHashSet(StringComparer.Ordinal);
            if (marked.Count == 0)
                continue;
            if (flora.Grid is { } grid)
                _grids.Add(grid);
            var all = new HashSet<string>(marked, StringComparer.Ordinal);
            // What stands below a sensitive taxon, and what one stands below; a hybrid of one, and an aggregate with one in it.
            foreach (var taxon in flora.Taxa)
            {
                var line = LineOf(taxon, byId);
                if (line.Exists(marked.Contains))
                    all.Add(taxon.Id);
                if (marked.Contains(taxon.Id))
                    all.UnionWith(line);
                if (taxon.Facts is { } facts && (facts.Members.Any(marked.Contains) || facts.Parents.Any(marked.Contains)))
                    all.Add(taxon.Id);
            }
            foreach (var taxon in flora.Taxa.Where(t => all.Contains(t.Id)))
            {
                foreach (var name in (taxon.Facts?.Synonyms ?? []).Append(taxon.Name))
                    _gridOf[name] = _gridOf.GetValueOrDefault(name) ?? flora.Grid;
                // A genus or a family may not be a taxon of the flora; the names of species tell it.
                if (!marked.Contains(taxon.Id))
                    continue;
                var genus = taxon.Name.Split(' ')[0];
                _gridOf[genus] = _gridOf.GetValueOrDefault(genus) ?? flora.Grid;
                if (taxon.Family.Length > 0)
                    _gridOf[taxon.Family] = _gridOf.GetValueOrDefault(taxon.Family) ?? flora.Grid;
            }
        }
    }

    private static List<string> LineOf(Taxon taxon, Dictionary<string, Taxon> byId)
    {
        var line = new List<string>();
        for (var at = byId.GetValueOrDefault(taxon.Parent); at is not null && !line.Contains(at.Id); at = byId.GetValueOrDefault(at.Parent))
            line.Add(at.Id);
        return line;
    }

    /// <summary>All names that stand for sensitive taxa, synonyms among them.</summary>
    public IReadOnlyCollection<string> Names => _gridOf.Keys;

    /// <summary>Whether a name stands for a sensitive taxon. An abbreviated genus and a name with its author are understood.</summary>
    public bool Holds(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        if (name.Length == 0)
            return false;
        if (_gridOf.ContainsKey(name))
            return true;
        if (TaxonName.TryParseScientific(name, out var read))
        {
            if (_gridOf.ContainsKey(read.Name))
                return true;
            // A form of it, or it with a doubt: "Vellorna alba subsp. minor", "Vellorna alba agg.".
            var words = read.Name.Split(' ');
            if (words.Length > 2 && _gridOf.ContainsKey($"{words[0]} {words[1]}"))
                return true;
            if (read.Genus.EndsWith('.') && words.Length > 1)
                return _gridOf.Keys.Any(k =>
                    k.StartsWith(read.Genus[..^1], StringComparison.OrdinalIgnoreCase)
                    && k.EndsWith(" " + words[1], StringComparison.OrdinalIgnoreCase)
                );
        }
        return _floras.Exists(f =>
            f.Taxa.Any(t => string.Equals(t.CommonName, name, StringComparison.OrdinalIgnoreCase) && _gridOf.ContainsKey(t.Name))
        );
    }

    /// <summary>Whether any of several names does.</summary>
    public bool HoldsAny(IEnumerable<string> names)
    {
        ArgumentNullException.ThrowIfNull(names);
        return _gridOf.Count > 0 && names.Any(Holds);
    }

    /// <summary>What is told of a position instead.</summary>
    /// <param name="names">The names that may be meant; the grid of a flora that keeps one of them back goes first.</param>
    /// <param name="latitude">The true one.</param>
    /// <param name="longitude">The true one.</param>
    public CoarsePosition Coarsen(IEnumerable<string> names, double latitude, double longitude)
    {
        ArgumentNullException.ThrowIfNull(names);
        const string withheld =
            "Exact position, locality, landmark, label, note, trail and elevation are kept back: the taxon, or one that may be meant, is sensitive. Ask the recorder.";
        // The grid of a flora that keeps one of the names back, or else of any that keeps something back; the first in which the position
        // lies.
        var grids = names.Select(n => _gridOf.GetValueOrDefault(n)).Concat(_grids).OfType<FloraGrid>().Distinct().ToList();
        var grid = grids.Find(g => g.At(latitude, longitude) is not null) ?? grids.FirstOrDefault();
        if (grid?.At(latitude, longitude) is not { } cell)
            return new CoarsePosition(
                "",
                null,
                null,
                null,
                $"No position is given: {(grid is null ? "the flora declares no grid to coarsen it to" : "it lies outside the flora's grid")}.",
                withheld
            );
        return new CoarsePosition(
            cell.Name,
            cell.Latitude,
            cell.Longitude,
            cell.RadiusMetres,
            string.Create(
                CultureInfo.InvariantCulture,
                $"Position given as the middle of the grid cell {cell.Name} ({grid.CellMetres:0} m square), since the taxon is sensitive."
            ),
            withheld
        );
    }
}
