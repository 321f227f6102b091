using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text;
using Halterion.Core.People;
using Halterion.Formats;
using Halterion.Store;
using Halterion.Web.Bodies;
using Microsoft.Data.Sqlite;

namespace Halterion.Web.Live;

/// <summary>A file of the desk that could not be taken in.</summary>
public sealed record DeskFault(string File, string Why);

/// <summary>
/// The letter box of the booking desk: a folder that is looked into every second. A file that was taken in is removed, for it names
/// people; one that cannot be read stays, and is said to.
/// </summary>
internal sealed class BookingDesk(Database database, DeskBook book, Sessions sessions, TimeProvider clock, TimeZoneInfo zone,
    ILogger<BookingDesk> log) : BackgroundService
{
    private const int LargestFile = 1_000_000;
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(1);
    private static readonly TimeSpan Forgets = TimeSpan.FromHours(1);

    /// <summary>A file that is not whole may still be being written.</summary>
    private static readonly TimeSpan Settles = TimeSpan.FromSeconds(3);

    private readonly ConcurrentDictionary<string, (DateTime Written, string Why)> faults = new();

    public string Folder { get; } = Path.Combine(database.Folder, "desk");

    public ImmutableArray<DeskFault> Faults => [.. faults.OrderBy(f => f.Key, StringComparer.Ordinal).Select(f => new DeskFault(f.Key, f.Value.Why))];

    /// <summary>Looks into the letter box once.</summary>
    public void Look()
    {
        var files = new DirectoryInfo(Folder).EnumerateFiles("*.ics").OrderBy(f => f.LastWriteTimeUtc).ThenBy(f => f.Name, StringComparer.Ordinal).ToArray();
        foreach (var gone in faults.Keys.Except(files.Select(f => f.Name)))
        {
            faults.TryRemove(gone, out _);
        }

        foreach (var file in files.Where(f => !faults.TryGetValue(f.Name, out var known) || known.Written != f.LastWriteTimeUtc))
        {
            if (Take(file) is not { } why)
            {
                file.Delete();
                faults.TryRemove(file.Name, out _);
            }
            else if (clock.GetUtcNow().UtcDateTime - file.LastWriteTimeUtc > Settles)
            {
                faults[file.Name] = (file.LastWriteTimeUtc, why);
            }
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        var forgotten = DateTimeOffset.MinValue;
        using var timer = new PeriodicTimer(Every, clock);
        do
        {
            try
            {
                Database.MakeFolder(Folder);
                Look();
                if (clock.GetUtcNow() - forgotten > Forgets)
                {
                    book.Forget();
                    forgotten = clock.GetUtcNow();
                }
            }
            catch (Exception e) when (e is SqliteException or IOException or UnauthorizedAccessException)
            {
                log.LogWarning("The desk's folder could not be looked into: {Why}", e.Message);
            }
        }
        while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    /// <summary>Null: it was taken in; else why not.</summary>
    private string? Take(FileInfo file)
    {
        if (file.Length > LargestFile)
        {
            return "It is larger than 1 MB.";
        }

        var (events, fault) = DeskCalendar.Read(File.ReadAllText(file.FullName, Encoding.UTF8), zone);
        foreach (var now in events)
        {
            book.Keep(now, SessionOf(now));
        }

        return fault;
    }

    /// <summary>The session that begins then; of several the one of the same name. Where none is it, somebody is asked.</summary>
    private Guid? SessionOf(DeskEvent now)
    {
        var then = sessions.ToCome().Where(s => BookingReader.Moment(s.StartsAt, s.Zone) == now.Starts).ToArray();
        return then is [var only] ? only.Id
            : then.Where(s => string.Equals(s.Title, now.Title, StringComparison.OrdinalIgnoreCase)).ToArray() is [var named] ? named.Id
            : null;
    }
}
