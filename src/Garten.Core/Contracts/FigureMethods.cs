namespace Garten.Core.Contracts;

/// <summary>How the figures of a survey are worked out, in words.</summary>
public static class FigureMethods
{
    private const string Taxa = "taxa";
    private const string Share = "0 to 1";
    private const string OfIndividuals = "It is worked out from individuals; ";

    /// <summary>A figure, and for which values it is meant.</summary>
    /// <param name="Method">How it is worked out.</param>
    /// <param name="NeedsCounts">Of individuals alone.</param>
    /// <param name="NeedsWeights">Not of mere presence.</param>
    public sealed record Meant(FigureMethod Method, bool NeedsCounts = false, bool NeedsWeights = false)
    {
        /// <summary>The same for values of a kind, with the reason where it isn't given for them.</summary>
        public FigureMethod For(SampleKind kind) =>
            Method with
            {
                Refused =
                    NeedsCounts && kind == SampleKind.Cover ? OfIndividuals + "cover isn't counted."
                    : NeedsCounts && kind == SampleKind.Incidence ? OfIndividuals + "found or not isn't counted."
                    : NeedsWeights && kind == SampleKind.Incidence
                        ? "Where a taxon is only found or not, all weigh alike: it says nothing but how many there are."
                    : "",
            };
    }

    /// <summary>Told where samples aren't compared in pairs.</summary>
    public static FigureMethod TooManyPairs { get; } =
        new("pairs", "Pairs", "", "", "", "More than 300 samples aren't compared two by two.");

    /// <summary>All of them, in the order of the answer.</summary>
    public static IReadOnlyList<Meant> All { get; } =
    [
        new(new("richness", "Richness", "S, the taxa found", "", Taxa)),
        new(new("shannon", "Shannon", "H′ = −Σ p ln p", "Shannon 1948", "nats"), NeedsWeights: true),
        new(new("simpson", "Simpson", "1 − Σ p²", "Simpson 1949", Share), NeedsWeights: true),
        new(new("inverseSimpson", "Inverse Simpson", "1 / Σ p²", "Simpson 1949; Hill 1973", "effective taxa"), NeedsWeights: true),
        new(new("pielou", "Pielou's evenness", "H′ / ln S; not of fewer than two taxa", "Pielou 1966", Share), NeedsWeights: true),
        new(new("hill", "Hill numbers", "S, exp H′, 1 / Σ p²", "Hill 1973", "effective taxa"), NeedsWeights: true),
        new(
            new(
                "chao1",
                "Chao1",
                "S + f1(f1−1) / (2(f2+1)), bias-corrected; f1 taxa of one individual, f2 of two",
                "Chao 1984, 1987",
                Taxa
            ),
            NeedsCounts: true
        ),
        new(
            new(
                "ace",
                "ACE",
                "S_abund + S_rare/C + f1/C · γ²; rare: 10 individuals or fewer; C = 1 − f1/N_rare",
                "Chao and Lee 1992",
                Taxa
            ),
            NeedsCounts: true
        ),
        new(new("coverage", "Sample coverage", "1 − f1/n · (n−1)f1 / ((n−1)f1 + 2f2)", "Chao and Jost 2012", Share), NeedsCounts: true),
        new(
            new(
                "rarefied",
                "Rarefied richness",
                "Σ (1 − C(N−Nᵢ, n) / C(N, n)), without replacement",
                "Hurlbert 1971; Heck et al. 1975",
                Taxa
            ),
            NeedsCounts: true
        ),
        new(new("chao2", "Chao2", "S + (T−1)/T · q1² / (2 q2); without taxa in two samples S + (T−1)/T · q1(q1−1) / 2", "Chao 1987", Taxa)),
        new(new("jackknife1", "Jackknife 1", "S + q1 (T−1)/T", "Burnham and Overton 1978; Heltshe and Forrester 1983", Taxa)),
        new(new("jackknife2", "Jackknife 2", "S + q1 (2T−3)/T − q2 (T−2)² / (T(T−1))", "Burnham and Overton 1978", Taxa)),
        new(new("bootstrap", "Bootstrap", "S + Σ (1 − p)^T", "Smith and van Belle 1984", Taxa)),
        new(
            new(
                "accumulation",
                "Accumulation",
                "Σ (1 − C(T−fᵢ, n) / C(T, n)), over all orders; its deviation is of these samples, so 0 at the last",
                "Ugland et al. 2003; Kindt et al. 2006",
                Taxa
            )
        ),
        new(new("sorensen", "Sørensen", "2a / (2a + b + c), similarity", "Sørensen 1948", Share)),
        new(new("jaccard", "Jaccard", "a / (a + b + c), similarity", "Jaccard 1901", Share)),
        new(new("brayCurtis", "Bray–Curtis", "Σ |x − y| / Σ (x + y), dissimilarity", "Bray and Curtis 1957", Share)),
    ];

    /// <summary>How samples are arranged.</summary>
    public static IReadOnlyList<FigureMethod> OfArrangement { get; } =
    [
        new(
            "ordination",
            "Principal coordinates",
            "eigenvectors of the doubly centred −½ d², each as long as the root of its eigenvalue; "
                + "axes whose eigenvalue isn't above 0 are left out",
            "Gower 1966",
            ""
        ),
        new(
            "clustering",
            "Clusters",
            "average linkage: two clusters are as far apart as their samples are in the mean",
            "Sokal and Michener 1958",
            ""
        ),
    ];
}
