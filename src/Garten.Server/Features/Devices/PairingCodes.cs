using System.Security.Cryptography;
using Garten.Core.Contracts;

namespace Garten.Server.Features.Devices;

/// <summary>
/// Codes that pair one device each: good for a few minutes, for one use, and gone when the server ends. Who guesses has a handful of tries
/// for all codes that are open: after these none is good any more.
/// </summary>
internal sealed class PairingCodes(TimeProvider clock)
{
    /// <summary>So long a code is good: to walk to the phone and type it.</summary>
    public static readonly TimeSpan Life = TimeSpan.FromMinutes(10);

    // Letters and figures that nobody takes for one another: 32, so 40 bits in eight of them.
    private const string Alphabet = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ";
    private const int Length = 8;
    private const int MostOpen = 5;
    private const int MostWrong = 10;

    private readonly Lock _lock = new();
    private readonly List<(string Code, PersonReference Person, DateTimeOffset Until)> _open = [];
    private int _wrong;

    /// <summary>Makes a code for a person's device. The oldest goes where too many are open.</summary>
    public (string Code, DateTimeOffset Until) Make(PersonReference person)
    {
        var code = RandomNumberGenerator.GetString(Alphabet, Length);
        var until = clock.GetUtcNow() + Life;
        lock (_lock)
        {
            ForgetOld();
            if (_open.Count == 0)
                _wrong = 0;
            if (_open.Count == MostOpen)
                _open.RemoveAt(0);
            _open.Add((code, person, until));
        }
        return ($"{code[..(Length / 2)]}-{code[(Length / 2)..]}", until);
    }

    /// <summary>Uses a code up; null where it isn't one, or isn't good any more.</summary>
    public PersonReference? Use(string typed)
    {
        var code = string.Concat(typed.Where(char.IsAsciiLetterOrDigit)).ToUpperInvariant();
        lock (_lock)
        {
            ForgetOld();
            var at = _open.FindIndex(o => CryptographicOperations.FixedTimeEquals(Bytes(o.Code), Bytes(code)));
            if (at >= 0)
            {
                var person = _open[at].Person;
                _open.RemoveAt(at);
                return person;
            }
            if (_open.Count > 0 && ++_wrong >= MostWrong)
                _open.Clear();
            return null;
        }
    }

    private void ForgetOld()
    {
        var now = clock.GetUtcNow();
        _open.RemoveAll(o => o.Until <= now);
    }

    private static byte[] Bytes(string code) => System.Text.Encoding.UTF8.GetBytes(code);
}
