using System.Formats.Asn1;
using System.Net;
using System.Net.Sockets;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Garten.Server.Hosting.Beyond;

/// <summary>
/// An authority that vouches for this server alone: a device that is told to trust it can check that it speaks with this server. It can't
/// vouch for names in the internet: its certificate says so, and devices hold it to that.
/// </summary>
internal sealed class LocalAuthority
{
    private const string Name = "CN=Garten on this network";

    // As long as a server is likely to be kept; a device is told to trust it once.
    private const int AuthorityYears = 10;

    // Longer ones are refused by some devices.
    private const int ServerDays = 397;
    private const int RenewDays = 30;
    private readonly X509Certificate2 _certificate;
    private readonly string _folder;

    private LocalAuthority(string folder, X509Certificate2 certificate)
    {
        _folder = folder;
        _certificate = certificate;
    }

    /// <summary>Its certificate, as a device takes it in.</summary>
    public byte[] Certificate => _certificate.RawData;

    /// <summary>SHA-256 of it, in pairs: compared by eye on the device.</summary>
    public string Fingerprint => string.Join(' ', SHA256.HashData(_certificate.RawData).Select(b => b.ToString("X2", null)));

    /// <summary>The authority of a folder; one is made where there is none. Its key is readable by its owner alone.</summary>
    public static LocalAuthority In(string folder)
    {
        Directory.CreateDirectory(folder);
        var (file, keyFile) = (Path.Combine(folder, "authority.crt"), Path.Combine(folder, "authority.key"));
        if (!File.Exists(file) || !File.Exists(keyFile))
            Make(file, keyFile);
        return new LocalAuthority(folder, X509Certificate2.CreateFromPemFile(file, keyFile));
    }

    /// <summary>A certificate for the server at some addresses: the one that was made last, or a new one where that runs out or names
    /// others.</summary>
    public X509Certificate2 CertificateFor(IReadOnlyList<string> hosts, DateTimeOffset now)
    {
        var (file, keyFile) = (Path.Combine(_folder, "server.crt"), Path.Combine(_folder, "server.key"));
        if (File.Exists(file) && File.Exists(keyFile))
        {
            var known = X509Certificate2.CreateFromPemFile(file, keyFile);
            if (
                new DateTimeOffset(known.NotAfter.ToUniversalTime()) > now.AddDays(RenewDays)
                && known.Issuer == Name
                && NamesOf(known).SetEquals(hosts)
            )
                return known;
        }
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest("CN=Garten", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        foreach (var host in hosts)
            names.AddIpAddress(IPAddress.Parse(host));
        request.CertificateExtensions.Add(names.Build());
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(false, false, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.DigitalSignature, true));
        request.CertificateExtensions.Add(new X509EnhancedKeyUsageExtension([new Oid("1.3.6.1.5.5.7.3.1")], false));
        request.CertificateExtensions.Add(X509AuthorityKeyIdentifierExtension.CreateFromCertificate(_certificate, true, false));
        // A clock that is a day behind takes it all the same.
        using var made = request.Create(_certificate, now.AddDays(-1), now.AddDays(ServerDays - 1), RandomNumberGenerator.GetBytes(16));
        Write(keyFile, key.ExportPkcs8PrivateKeyPem(), isSecret: true);
        Write(file, made.ExportCertificatePem(), isSecret: false);
        return X509Certificate2.CreateFromPemFile(file, keyFile);
    }

    private static void Make(string file, string keyFile)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest(Name, key, HashAlgorithmName.SHA256);
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, true, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.KeyCertSign, true));
        request.CertificateExtensions.Add(new X509SubjectKeyIdentifierExtension(request.PublicKey, false));
        request.CertificateExtensions.Add(OnlyPrivateNetworks());
        var now = DateTimeOffset.UtcNow;
        using var made = request.CreateSelfSigned(now.AddDays(-1), now.AddYears(AuthorityYears));
        Write(keyFile, key.ExportPkcs8PrivateKeyPem(), isSecret: true);
        Write(file, made.ExportCertificatePem(), isSecret: false);
    }

    // Networks that no site of the internet has its address in (RFC 1918, 3927, 4193, 4291, 6598), and this machine itself.
    private static readonly (string Network, int Bits)[] Private =
    [
        ("10.0.0.0", 8),
        ("172.16.0.0", 12),
        ("192.168.0.0", 16),
        ("169.254.0.0", 16),
        ("100.64.0.0", 10),
        ("127.0.0.0", 8),
        ("fc00::", 7),
        ("fe80::", 10),
        ("::1", 128),
    ];

    /// <summary>Whether it may vouch for an address.</summary>
    public static bool VouchesFor(IPAddress address) =>
        Array.Exists(Private, p => new IPNetwork(IPAddress.Parse(p.Network), p.Bits).Contains(address));

    // Name constraints (RFC 5280, 4.2.1.10): addresses in private networks and no names at all.
    private static X509Extension OnlyPrivateNetworks()
    {
        var (permitted, excluded, address, dns) = (
            new Asn1Tag(TagClass.ContextSpecific, 0),
            new Asn1Tag(TagClass.ContextSpecific, 1),
            new Asn1Tag(TagClass.ContextSpecific, 7),
            new Asn1Tag(TagClass.ContextSpecific, 2)
        );
        var writer = new AsnWriter(AsnEncodingRules.DER);
        using (writer.PushSequence())
        {
            using (writer.PushSequence(permitted))
            {
                foreach (var (network, bits) in Private)
                {
                    using (writer.PushSequence())
                        writer.WriteOctetString([.. IPAddress.Parse(network).GetAddressBytes(), .. Mask(network, bits)], address);
                }
            }
            using (writer.PushSequence(excluded))
            using (writer.PushSequence())
                // The empty name is the end of each.
                writer.WriteCharacterString(UniversalTagNumber.IA5String, "", dns);
        }
        return new X509Extension("2.5.29.30", writer.Encode(), critical: true);
    }

    private static byte[] Mask(string network, int bits)
    {
        var mask = new byte[IPAddress.Parse(network).AddressFamily == AddressFamily.InterNetwork ? 4 : 16];
        for (var bit = 0; bit < bits; bit++)
            mask[bit / 8] |= (byte)(0x80 >> (bit % 8));
        return mask;
    }

    private static HashSet<string> NamesOf(X509Certificate2 certificate) =>
        [
            .. certificate
                .Extensions.OfType<X509SubjectAlternativeNameExtension>()
                .SelectMany(e => e.EnumerateIPAddresses())
                .Select(a => a.ToString()),
        ];

    private static void Write(string file, string text, bool isSecret)
    {
        var mode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
            options.UnixCreateMode = isSecret ? mode : mode | UnixFileMode.GroupRead | UnixFileMode.OtherRead;
        using var stream = new FileStream(file, options);
        stream.Write(System.Text.Encoding.ASCII.GetBytes(text));
    }
}
