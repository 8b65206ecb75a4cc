namespace Garten.Core.Surveys.Plots;

/// <summary>Numbers by chance that are the same again for the same seed, on every machine (SplitMix64, Steele, Lea and Flood 2014: Fast
/// splittable pseudorandom number generators).</summary>
/// <param name="seed">Where it begins.</param>
public sealed class SeededDraw(long seed)
{
    private ulong _state = unchecked((ulong)seed);

    private ulong Next()
    {
        _state = unchecked(_state + 0x9E3779B97F4A7C15UL);
        var z = _state;
        z = unchecked((z ^ (z >> 30)) * 0xBF58476D1CE4E5B9UL);
        z = unchecked((z ^ (z >> 27)) * 0x94D049BB133111EBUL);
        return z ^ (z >> 31);
    }

    // As many bits as a number between 0 and 1 holds.
    private const int Bits = 53;

    /// <summary>A number from 0 up to, but not, 1.</summary>
    public double Share() => (Next() >> (64 - Bits)) * (1.0 / (1UL << Bits));

    /// <summary>A whole number from 0 up to, but not, a bound of 1 or more.</summary>
    public int Below(int bound) => (int)(Share() * bound);

    /// <summary>Puts a list into an order by chance, each as probable (Fisher and Yates 1938).</summary>
    public void Shuffle<T>(Span<T> all)
    {
        for (var i = all.Length - 1; i > 0; i--)
        {
            var j = Below(i + 1);
            (all[i], all[j]) = (all[j], all[i]);
        }
    }
}
