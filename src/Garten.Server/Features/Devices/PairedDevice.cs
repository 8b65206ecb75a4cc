namespace Garten.Server.Features.Devices;

/// <summary>A device that was paired with this server.</summary>
/// <param name="Id">Its id: the one that it made for itself.</param>
/// <param name="Person">Whose it is.</param>
/// <param name="Name">What its person calls it.</param>
/// <param name="PairedAt">When it was paired.</param>
/// <param name="SeenAt">When it was here last, to the hour.</param>
/// <param name="RevokedAt">Since when it may not come here any more; null: it may.</param>
public sealed record PairedDevice(
    Guid Id,
    Core.Contracts.PersonReference Person,
    string Name,
    DateTimeOffset PairedAt,
    DateTimeOffset SeenAt,
    DateTimeOffset? RevokedAt
);

/// <summary>What the server's own page shows of devices.</summary>
/// <param name="Addresses">Where devices reach this server; none where it answers on its own machine alone.</param>
/// <param name="HasOwnAuthority">Whether its certificate is of an authority of its own, that a device has to be told to trust.</param>
/// <param name="AuthorityFingerprint">SHA-256 of that authority's certificate, to be compared on the device; empty without one.</param>
/// <param name="Devices">All that were paired, the last first.</param>
public sealed record DeviceList(
    IReadOnlyList<string> Addresses,
    bool HasOwnAuthority,
    string AuthorityFingerprint,
    IReadOnlyList<PairedDevice> Devices
);

/// <summary>Asks for a code for a device.</summary>
/// <param name="Person">Whose device it is; somebody new is taken in by it.</param>
public sealed record PairingRequest(Core.Contracts.PersonReference Person);

/// <summary>A code that pairs one device, once.</summary>
/// <param name="Code">The code, as it is typed.</param>
/// <param name="ExpiresAt">Until when.</param>
/// <param name="Address">The address that opens the page of pairing with the code in it.</param>
/// <param name="Qr">That address as a QR code, an SVG picture.</param>
public sealed record PairingOffer(string Code, DateTimeOffset ExpiresAt, string Address, string Qr);

/// <summary>Pairs a device; the header <c>Garten-Device</c> says which.</summary>
/// <param name="Code">The code; hyphens, spaces and small letters don't matter.</param>
/// <param name="Name">What its person calls it.</param>
public sealed record PairRequest(string Code, string Name);

/// <summary>Who asks, as the server knows it.</summary>
/// <param name="IsHere">Whether it asks from the server's own machine, where nothing has to be paired.</param>
/// <param name="Person">Whose paired device it is; null on the server's own machine.</param>
/// <param name="Name">What the device is called.</param>
public sealed record DeviceHere(bool IsHere, Core.Contracts.PersonReference? Person, string Name);
