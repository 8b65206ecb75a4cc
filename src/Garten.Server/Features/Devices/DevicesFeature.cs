using System.Text;
using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Hosting;
using Garten.Server.Hosting.Beyond;

namespace Garten.Server.Features.Devices;

/// <summary>Devices that reach this server from beyond its own machine: a code pairs one, on the server's own page it is revoked.</summary>
internal sealed class DevicesFeature : IFeature
{
    public void Add(IServiceCollection services)
    {
        services.AddSingleton<DeviceRepository>();
        services.AddSingleton<PairingCodes>();
    }

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/devices", async (HttpContext context, DeviceRepository devices, BeyondLoopback beyond, CancellationToken stop) =>
                BeyondLoopback.IsBeyond(context)
                    ? OnlyHere()
                    : Results.Ok(
                        new DeviceList(
                            beyond.Addresses,
                            beyond.Authority is not null,
                            beyond.Authority?.Fingerprint ?? "",
                            await devices.ListAsync(stop)
                        )
                    )
            )
            .Produces<DeviceList>()
            .Produces<ProblemReport>(403, "application/problem+json")
            .WithName("listDevices")
            .WithSummary("The devices that were paired, and where this server is reached; on its own machine alone.");
        api.MapGet("/devices/here", (HttpContext context) => TypedResults.Ok(Here(context)))
            .WithName("getDeviceHere")
            .WithSummary("Who asks: the server's own machine, or a paired device with its person.");
        api.MapPost("/devices/codes", Offer)
            .Produces<PairingOffer>()
            .Produces<ProblemReport>(403, "application/problem+json")
            .Produces<ProblemReport>(409, "application/problem+json")
            .Produces<ProblemReport>(422, "application/problem+json")
            .WithName("offerPairing")
            .WithSummary("A code that pairs one device with a person, once, within ten minutes; on the server's own machine alone.");
        api.MapPost("/devices/pair", PairAsync)
            .Produces<DeviceHere>()
            .Produces<ProblemReport>(403, "application/problem+json")
            .Produces<ProblemReport>(409, "application/problem+json")
            .Produces<ProblemReport>(422, "application/problem+json")
            .Produces<ProblemReport>(429, "application/problem+json")
            .WithName("pairDevice")
            .WithSummary("Pairs the device that asks, by a code; from then on it is known by a cookie that no script reads.");
        api.MapPost("/devices/{id:guid}/revoke", async (Guid id, HttpContext context, DeviceRepository devices, CancellationToken stop) =>
                BeyondLoopback.IsBeyond(context) ? OnlyHere()
                : await devices.RevokeAsync(id, stop) ? Results.NoContent()
                : Problems.Result(404, "device.unknown", "There is no such device.", "Look at the list again.", "id")
            )
            .Produces(204)
            .Produces<ProblemReport>(403, "application/problem+json")
            .Produces<ProblemReport>(404, "application/problem+json")
            .WithName("revokeDevice")
            .WithSummary("Lets a device in no more; what it has sent stays. On the server's own machine alone.");
    }

    private static DeviceHere Here(HttpContext context) =>
        context.Features.Get<PairedDevice>() is { } device
            ? new DeviceHere(false, device.Person, device.Name)
            : new DeviceHere(!BeyondLoopback.IsBeyond(context), null, "");

    private static IResult OnlyHere() =>
        Problems.Result(
            403,
            "device.elsewhere",
            "This is done on the server's own machine.",
            "Open Garten there: its page of devices shows codes and takes devices out."
        );

    private static IResult Offer(PairingRequest asked, HttpContext context, PairingCodes codes, BeyondLoopback beyond)
    {
        if (BeyondLoopback.IsBeyond(context))
            return OnlyHere();
        if (beyond.Addresses is not [var address, ..])
            return Problems.Result(
                409,
                "device.alone",
                "This server answers on its own machine alone.",
                "Start it with ./garten serve --listen and the address of this machine in your network."
            );
        try
        {
            Check.Ids((asked.Person.Id, "person"));
            Check.Text(asked.Person.Name, "person", "The person's name", Limits.LongestName, required: true);
        }
        catch (CommandRefusedException wrong)
        {
            return Problems.Result(wrong.Problem);
        }
        var (code, until) = codes.Make(asked.Person);
        var page = $"{address}/pair#{code}";
        return Results.Ok(new PairingOffer(code, until, page, QrPicture.Of(page)));
    }

    private static async Task<IResult> PairAsync(
        PairRequest asked,
        HttpContext context,
        PairingCodes codes,
        DeviceRepository devices,
        CancellationToken stop
    )
    {
        if (!context.Request.IsHttps)
            return Problems.Result(
                403,
                "device.here",
                "Nothing has to be paired here.",
                "The server's own machine needs no code; other devices come by the address that begins with https."
            );
        if (CommandsFeature.DeviceOf(context.Request) is not { } id)
            return Problems.Result(
                422,
                "device.unnamed",
                "No device is named.",
                $"Send the header {CommandsFeature.DeviceHeader} with an id that the device has made for itself."
            );
        try
        {
            Check.Text(asked.Name, "name", "The device's name", Limits.LongestName, required: true);
        }
        catch (CommandRefusedException wrong)
        {
            return Problems.Result(wrong.Problem);
        }
        if (codes.Use(asked.Code) is not { } person)
            return Problems.Result(
                422,
                "device.code",
                "This code isn't good.",
                "Each is good once and for ten minutes, and after several wrong ones none is: have the server's page show a new one.",
                "code"
            );
        if (await devices.PairAsync(id, person, asked.Name.Trim(), stop) is not { } token)
            return Problems.Result(
                409,
                "device.taken",
                "This device is paired with another person.",
                "Take it out on the server's page of devices first."
            );
        PairedDevices.Remember(context, token);
        return Results.Ok(new DeviceHere(false, person, asked.Name.Trim()));
    }
}
