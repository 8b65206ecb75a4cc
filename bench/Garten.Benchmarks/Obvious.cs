using Garten.Core.Evidence;
using Garten.Core.Floras;

namespace Garten.Benchmarks;

/// <summary>
/// Sifting as one would write it first: what each taxon is like in a dictionary by taxon and character, and every likelihood worked out
/// when it is asked for. It gives the same ranking as <see cref="Core.Identification.Sifter"/>, which is tested, and stands here to be
/// measured against.
/// </summary>
public sealed class Obvious
{
    private readonly CharacterTable _table;
    private readonly Dictionary<(string Taxon, string Character), CharacterDescription> _described = [];
    private readonly string[] _taxa;

    // A weigher that has seen no flora: it keeps nothing from one taxon to the next.
    private readonly EvidenceOptions _options = EvidenceOptions.Default;

    /// <summary>Makes it of a table with its descriptions.</summary>
    public Obvious(CharacterTable table)
    {
        ArgumentNullException.ThrowIfNull(table);
        _table = table;
        _taxa = [.. table.Descriptions.Select(d => d.Taxon)];
        foreach (var description in table.Descriptions)
        {
            foreach (var cell in description.Characters)
                _described[(description.Taxon, cell.Character)] = cell;
        }
    }

    /// <summary>The taxa with ln of their likelihood over that of any plant, likeliest first.</summary>
    public IReadOnlyList<(string Taxon, double Log)> Rank(IReadOnlyList<Observation> observations)
    {
        var items = EvidenceItem.Pool(observations, _table, _options);
        var sums = _taxa.ToDictionary(t => t, _ => 0d);
        foreach (var item in items)
        {
            var own = _table
                .Descriptions.Select(d => new TaxonDescription(
                    d.Taxon,
                    _described.TryGetValue((d.Taxon, item.Character.Id), out var cell) ? [cell] : []
                ))
                .ToList();
            var likelihood = new Likelihood(own, _options);
            var raw = new Dictionary<string, double>();
            foreach (var taxon in _taxa)
            {
                if (_described.TryGetValue((taxon, item.Character.Id), out var cell))
                    raw[taxon] = likelihood.Raw(item, cell);
            }
            var marginal = likelihood.Marginal(item, raw);
            foreach (var (taxon, probability) in raw)
                sums[taxon] += item.Weight * Math.Log(likelihood.Soften(item, probability, marginal) / marginal);
        }
        return [.. sums.OrderByDescending(s => s.Value).ThenBy(s => s.Key, StringComparer.Ordinal).Select(s => (s.Key, s.Value))];
    }
}
