using System.Security.Cryptography;
using System.Text;

namespace Garten.Core.Keys;

/// <summary>The identity of a version of a key: what it says, not how it was typed.</summary>
public static class KeyHash
{
    /// <summary>
    /// SHA-256 of the key written out in brackets, as 64 small hexadecimal digits. Two texts that read as the same key, in whichever
    /// layout, give the same hash; any change of a statement, number, name, page or of the order of couplets gives another.
    /// </summary>
    public static string Of(Key key) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(KeyTextWriter.Write(key, KeyLayout.Bracketed))));
}
