using BenchmarkDotNet.Attributes;
using Garten.Core.Keys;
using Garten.Core.Language;
using Garten.Formats;
using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>Reading statements: making the lexicon, one statement as it is typed, the first 20 couplets, 500 with their proposals, and
/// 10,000 as the server reads them.</summary>
public class LanguageBenchmarks
{
    private const int First = 20;
    private const int Large = 500;
    private const int Huge = 10_000;

    private readonly GrammarReader _reader = GrammarReader.Of(ShippedVocabulary.Botany, []);
    private List<IReadOnlyList<string>> _leads = null!;
    private TextContext _context = null!;

    /// <summary>Takes the leads of the key out of an old book.</summary>
    [GlobalSetup]
    public void Make()
    {
        var text = File.ReadAllText(Path.Combine(Repository.Root, "demo", "pages", "old-book.txt"));
        _leads = [.. KeyTextReader.Read(text).Keys[0].Couplets.SelectMany(c => c.Leads).Select(l => l.Statements)];
        _context = _reader.ContextOf(_leads.SelectMany(l => l));
    }

    /// <summary>The lexicon, once per vocabulary.</summary>
    [Benchmark]
    public GrammarReader Lexicon() => new(ShippedVocabulary.Botany);

    /// <summary>One statement, proposals included: at most 50 ms in the browser.</summary>
    [Benchmark]
    public int Statement() => _reader.Read(["lvs glabrous beneath, petiole 12–15 mm, grooved above"], _context).Count;

    /// <summary>The first couplets of a key.</summary>
    [Benchmark(Baseline = true)]
    public int FirstCouplets() => Read(First, proposes: true);

    /// <summary>A large key with its proposals.</summary>
    [Benchmark]
    public int LargeKey() => Read(Large, proposes: true);

    /// <summary>The largest key, as it is followed: without proposals.</summary>
    [Benchmark]
    public int HugeKey() => Read(Huge, proposes: false);

    private int Read(int couplets, bool proposes)
    {
        const int leadsPerCouplet = 2;
        var claims = 0;
        for (var i = 0; i < couplets * leadsPerCouplet; i++)
            claims += _reader.Read(_leads[i % _leads.Count], _context, proposes).Sum(r => r.Claims.Count);
        return claims;
    }
}
