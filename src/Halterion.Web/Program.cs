using System.Net.Sockets;
using System.Reflection;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Demo;
using Halterion.Web.Endpoints;
using Halterion.Web.Library;
using Halterion.Web.Live;
using Halterion.Web.Security;
using Halterion.Web.Startup;

// The build runs this program to write the OpenAPI document; it must touch no data then.
var describing = Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

// The packed program has the words of the script.
var packed = Packaged.Is && !describing ? Packaged.From(args, Console.Out, Console.Error) : new Packaged.Read(args, false, null);
if (packed.End is { } end)
{
    return Packaged.Ended(end);
}

if (packed.Args is ["check", .. var rest])
{
    return new CheckTask([.. rest.Where(a => a != "--json")], rest.Contains("--json")).Run(Console.Out);
}

if (packed.Args is ["draft", var brief])
{
    return new DraftTask(brief).Run(Console.Out);
}

// Read while the rest of the program comes up.
var shipped = Task.Run(MoveLibrary.Load);
var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = packed.Args, ContentRootPath = AppContext.BaseDirectory });
var settings = CommandLine.From(builder.Configuration);
if (settings.Fault is { } fault)
{
    Console.Error.WriteLine(fault);
    return Packaged.Ended(2);
}

if (settings.Task is { } task)
{
    return DataTasks.Run(task, settings, TimeProvider.System);
}

Database? database = null;
try
{
    // Damaged data is opened all the same, so that every screen can say what is wrong and put a copy back.
    database = describing ? null : Database.Open(settings.DataFolder, TimeProvider.System);
}
catch (StoreException e)
{
    if (packed.OpensBrowser && await Packaged.AnswersAsync(settings.Port))
    {
        Console.WriteLine($"Halterion is running already: http://localhost:{settings.Port}");
        Packaged.Open($"http://localhost:{settings.Port}");
        return 0;
    }

    Console.Error.WriteLine(e.Message);
    return Packaged.Ended(1);
}

builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.Logging.AddFilter("Microsoft.Hosting.Lifetime", LogLevel.None);
builder.Logging.AddFilter("Microsoft.Extensions.Hosting.Internal.Host", LogLevel.None);
var door = settings.Lan && !describing ? LocalNetwork.Open(settings.Port == 0 ? 0 : settings.Port + 1) : LocalNetwork.Shut;
builder.Configuration["AllowedHosts"] = string.Join(';', [Doors.AllowedHosts, .. door.Names]);
builder.Services.Configure<Microsoft.AspNetCore.HostFiltering.HostFilteringOptions>(hosts => hosts.AllowEmptyHosts = false);
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.AddServerHeader = false;
    kestrel.Limits.MaxRequestBodySize = 2 * Raw.MaxBytes;
    kestrel.Listen(System.Net.IPAddress.Loopback, settings.Port);
    if (door.Port is { } open && database is not null)
    {
        kestrel.Listen(
            System.Net.IPAddress.Any, open, listen => listen.UseHttps(door.Certificate(settings.DataFolder, TimeProvider.System)));
    }
});
builder.Services.Configure<HostOptions>(host => host.ShutdownTimeout = TimeSpan.FromSeconds(3));
builder.Services.AddProblemDetails();
builder.Services.AddOpenApi(options => Contract.Describe(options));
builder.Services.ConfigureHttpJsonOptions(json => Contract.Configure(json.SerializerOptions));
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton(TimeZoneInfo.Local);
builder.Services.AddSingleton(_ => new ShippedMoves(shipped.GetAwaiter().GetResult()));
builder.Services.AddSingleton(_ => database ?? throw new InvalidOperationException("No data folder is open."));
builder.Services.AddSingleton<Settings>().AddSingleton<Templates>().AddSingleton<OwnMoves>();
builder.Services.AddSingleton<Classes>()
    .AddSingleton<Sessions>()
    .AddSingleton<People>()
    .AddSingleton<Traces>()
    .AddSingleton<Rooms>()
    .AddSingleton<Leads>()
    .AddSingleton<Logs>().AddSingleton<DemoStudio>();
builder.Services.AddSingleton<SessionRooms>()
    .AddSingleton<SessionChecks>()
    .AddSingleton<StudioDrafts>()
    .AddSingleton<CalendarOf>()
    .AddSingleton<SessionSuggestions>()
    .AddSingleton<LearntPaces>()
    .AddSingleton<LogRows>()
    .AddSingleton<SeriesBook>()
    .AddSingleton<SeriesMaker>()
    .AddSingleton<Everything>()
    .AddSingleton<Current>()
    .AddSingleton<WrittenAnswers>()
    .AddSingleton<SteadyClock>()
    .AddSingleton<Followers>();
builder.Services.AddTransient(services => services.GetRequiredService<Current>().Evaluator);
builder.Services.AddTransient(services => services.GetRequiredService<Current>().Moves);
builder.Services.AddTransient(services => services.GetRequiredService<Current>().Preferences);
builder.Services.AddTransient<Starters>();
builder.Services.AddSingleton(door).AddSingleton<Pairing>().AddSingleton<Devices>().AddSingleton<Belts>();
builder.Services.AddSingleton(settings)
    .AddSingleton<Clips>()
    .AddSingleton<DeskBook>()
    .AddSingleton<BookingDesk>()
    .AddSingleton<SimulatedDesk>();
builder.Services.AddAnswerCompression();
builder.Services.AddRoles();
builder.Services.AddLimits();
builder.Services.AddExceptionHandler<Failures>().AddSingleton<Beginning>();
if (database is not null)
{
    builder.Services.AddHostedService<DailyCopies>();
    builder.Services.AddHostedService(services => services.GetRequiredService<BookingDesk>());
}

var app = builder.Build();
app.UseExceptionHandler();
app.UseStatusCodePages(WrongQueries.AnswerAsync);
app.UseDoors();
app.UseResponseCompression();
app.UseRouting();
app.UseRateLimiter();
if (database is not null)
{
    app.UseTrouble(database);
}

app.UseAuthentication();
app.UseAuthorization();
var owner = app.MapGroup("").RequireAuthorization(Roles.Owner);
owner.MapHealth();
owner.MapData();
owner.MapPlans();
owner.MapDrafts();
owner.MapLook();
owner.MapMoves();
owner.MapOwnMoves();
owner.MapClasses();
owner.MapSessions();
owner.MapVersions();
owner.MapTakeAlong();
owner.MapTemplates();
owner.MapSettings();
owner.MapLogs();
owner.MapProgress();
owner.MapHistory();
owner.MapEverything();
owner.MapSeries();
owner.MapPeople();
owner.MapRoster();
owner.MapRooms();
owner.MapChecks();
owner.MapDevices();
owner.MapBelts();
owner.MapDesk();
owner.MapClips();
var lead = app.MapGroup("").RequireAuthorization(Roles.Lead);
lead.MapLeading();
lead.MapHearts();
app.MapGroup("").RequireAuthorization(Roles.Wall).MapWall();
app.MapGroup("").AllowAnonymous().MapPairing();
if (describing)
{
    app.Run();
    return 0;
}

app.MapPages();
if (database is not null)
{
    app.Lifetime.ApplicationStopped.Register(database.Dispose);
    app.Services.GetRequiredService<Beginning>().Begin();
}

try
{
    await app.StartAsync();
}
catch (IOException e) when (e.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException or SocketException)
{
    database?.Dispose();
    Console.Error.WriteLine($"Port {settings.Port} is already in use. Choose another with --port N.");
    return Packaged.Ended(1);
}

Console.WriteLine($"Halterion is running: {app.Urls.FirstOrDefault() ?? "in tests"}");
if (door.Address is { } outside)
{
    Console.WriteLine($"For paired devices on the local network: {outside}");
}

if (app.Urls.Count > 0)
{
    if (packed.OpensBrowser)
    {
        Packaged.Open(app.Urls.First());
    }

    // The library is drawn while nobody waits for it yet; the one that ships, for there may be no data to read others from.
    var library = app.Services.GetRequiredService<ShippedMoves>().Library;
    _ = Task.Run(() =>
    {
        _ = new Starters(library, new Preferences()).Blocks();
        OptionFigure.DrawAll(library);
    });
}

await app.WaitForShutdownAsync();
return 0;

/// <summary>Named so that tests can start the real program.</summary>
public sealed partial class Program;
