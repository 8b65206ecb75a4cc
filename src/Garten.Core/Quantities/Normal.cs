namespace Garten.Core.Quantities;

/// <summary>The standard normal distribution.</summary>
public static class Normal
{
    // Beyond this many deviations the tail is far below what a double adds to 1.
    private const double Far = 38;

    /// <summary>Density φ(z) = exp(−z²/2)/√(2π).</summary>
    public static double Density(double z) => Math.Exp(-z * z / 2) / Math.Sqrt(2 * Math.PI);

    /// <summary>
    /// Distribution Φ(z), the probability of a value below z; 0 to 1. Near the middle by the series Φ(z) = ½ + φ(z)·Σ
    /// z^(2k+1)/(1·3·…·(2k+1)),
    /// in the tails by the continued fraction of the Mills ratio (Abramowitz and Stegun, 26.2.11 and 26.2.14); error under 1e-14.
    /// </summary>
    public static double Below(double z)
    {
        if (double.IsNaN(z))
            return double.NaN;
        if (z < -Far)
            return 0;
        if (z > Far)
            return 1;
        const double seriesUpTo = 3;
        if (Math.Abs(z) <= seriesUpTo)
        {
            double term = z,
                sum = z;
            for (var k = 1; Math.Abs(term) > 1e-17 * Math.Abs(sum); k++)
            {
                term *= z * z / (2 * k + 1);
                sum += term;
            }
            return 0.5 + Density(z) * sum;
        }
        var x = Math.Abs(z);
        const int terms = 120;
        var fraction = x;
        for (var k = terms; k >= 1; k--)
            fraction = x + k / fraction;
        var tail = Density(x) / fraction;
        return z < 0 ? tail : 1 - tail;
    }

    /// <summary>The same to within 8e-8, several times as quick: where many are summed and none is shown (Abramowitz and Stegun 1964,
    /// 26.2.17).</summary>
    public static double BelowRoughly(double z)
    {
        const double p = 0.2316419,
            b1 = 0.319381530,
            b2 = -0.356563782,
            b3 = 1.781477937,
            b4 = -1.821255978,
            b5 = 1.330274429;
        if (double.IsNegativeInfinity(z))
            return 0;
        var t = 1 / (1 + p * Math.Abs(z));
        var tail = Density(z) * t * (b1 + t * (b2 + t * (b3 + t * (b4 + t * b5))));
        return z < 0 ? tail : 1 - tail;
    }

    /// <summary>Probability of a value from <paramref name="from"/> to <paramref name="to"/>; worked out in the tail where both lie so that
    /// nothing cancels.</summary>
    public static double Between(double from, double to) =>
        to <= from ? 0
        : from > 0 ? Below(-from) - Below(-to)
        : Below(to) - Below(from);
}

/// <summary>Student's t distribution.</summary>
public static class StudentT
{
    private const int Steps = 200;

    /// <summary>
    /// The value that t stays under with probability 0.975: half-width of a 95 % interval in standard errors. Found by bisection of the
    /// distribution, which is the regularised incomplete beta function (Abramowitz and Stegun, 26.7.1).
    /// </summary>
    /// <param name="degrees">Degrees of freedom; at least 1.</param>
    /// <exception cref="ArgumentOutOfRangeException"><paramref name="degrees"/> is below 1.</exception>
    public static double Quantile975(int degrees)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(degrees, 1);
        if (degrees >= Known.Length)
            return Bisected(degrees);
        // Two at once work out the same value.
        if (Known[degrees] == 0)
            Known[degrees] = Bisected(degrees);
        return Known[degrees];
    }

    // Samples are small, and every step of the Bench asks again.
    private static readonly double[] Known = new double[1000];

    /// <summary>The same of degrees of freedom that aren't whole, as Welch's are.</summary>
    /// <param name="degrees">Degrees of freedom; at least 1.</param>
    /// <exception cref="ArgumentOutOfRangeException"><paramref name="degrees"/> is below 1.</exception>
    public static double Quantile975(double degrees)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(degrees, 1);
        return Bisected(degrees);
    }

    private static double Bisected(double degrees)
    {
        // With one degree of freedom it is 12.7062; more degrees only make it smaller.
        double low = 1.9,
            high = 12.8;
        for (var i = 0; i < 80; i++)
        {
            var middle = (low + high) / 2;
            if (TwoTails(middle, degrees) > 0.05)
                low = middle;
            else
                high = middle;
        }
        return (low + high) / 2;
    }

    // Probability of |t| above a value: I_x(ν/2, 1/2) with x = ν/(ν + t²).
    private static double TwoTails(double t, double degrees) => IncompleteBeta(degrees / 2d, 0.5, degrees / (degrees + t * t));

    // Continued fraction of the incomplete beta function (Abramowitz and Stegun, 26.5.8), by Lentz's method.
    private static double IncompleteBeta(double a, double b, double x)
    {
        if (x <= 0)
            return 0;
        if (x >= 1)
            return 1;
        if (x > (a + 1) / (a + b + 2))
            return 1 - IncompleteBeta(b, a, 1 - x);
        const double tiny = 1e-300;
        double c = 1,
            d = 1 / Nonzero(1 - (a + b) * x / (a + 1)),
            result = d;
        for (var m = 1; m <= Steps; m++)
        {
            var even = m * (b - m) * x / ((a + 2 * m - 1) * (a + 2 * m));
            d = 1 / Nonzero(1 + even * d);
            c = Nonzero(1 + even / c);
            result *= d * c;
            var odd = -(a + m) * (a + b + m) * x / ((a + 2 * m) * (a + 2 * m + 1));
            d = 1 / Nonzero(1 + odd * d);
            c = Nonzero(1 + odd / c);
            result *= d * c;
            if (Math.Abs(d * c - 1) < 1e-15)
                break;
        }
        return Math.Exp(a * Math.Log(x) + b * Math.Log(1 - x) - LogBeta(a, b)) * result / a;

        static double Nonzero(double value) => Math.Abs(value) < tiny ? tiny : value;
    }

    private static double LogBeta(double a, double b) => LogGamma(a) + LogGamma(b) - LogGamma(a + b);

    // Stirling's series, after the argument was raised to where it is exact to the last digits (Abramowitz and Stegun, 6.1.41).
    private static double LogGamma(double x)
    {
        double shift = 0;
        for (; x < 12; x++)
            shift += Math.Log(x);
        var square = 1 / (x * x);
        return (x - 0.5) * Math.Log(x)
            - x
            + 0.5 * Math.Log(2 * Math.PI)
            + (1 / 12d - square * (1 / 360d - square * (1 / 1260d - square / 1680d))) / x
            - shift;
    }
}
