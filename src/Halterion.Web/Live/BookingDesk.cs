using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text;
using Halterion.Core.People;
using Halterion.Formats;
using Halterion.Store;
using Halterion.Web.Bodies;

namespace Halterion.Web.Live;

/// <summary>A file of the desk that could not be taken in.</summary>
public sealed record DeskFault(string File, string Why);

/// <summary>
/// The letter box of the booking desk: a folder that is looked into every second. A file that was taken in is removed, for it names
/// people. One that is no file of its own (a link, a pipe), is too large, takes too long or cannot be read stays where it is, is said to,
/// and keeps nobody waiting: the others go on.
/// </summary>
internal sealed class BookingDesk(Database database, DeskBook book, Sessions sessions, TimeProvider clock, TimeZoneInfo zone,
    ILogger<BookingDesk> log) : BackgroundService
{
    /// <summary>So many files are looked at in a second, and so many classes may a file have. [M]</summary>
    private const int MostFiles = 200;
    private const int MostClasses = 200;

    private static readonly TimeSpan Every = TimeSpan.FromSeconds(1);
    private static readonly TimeSpan Forgets = TimeSpan.FromHours(1);

    /// <summary>A file that is not whole may still be being written.</summary>
    private static readonly TimeSpan Settles = TimeSpan.FromSeconds(3);

    /// <summary>So long a file may take to be read and understood. [M]</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(5);

    private readonly ConcurrentDictionary<string, (DateTime Written, string Why)> faults = new();

    public string Folder { get; } = DeskFolder.In(database.Folder);

    public ImmutableArray<DeskFault> Faults =>
        [.. faults.OrderBy(f => f.Key, StringComparer.Ordinal).Select(f => new DeskFault(f.Key, f.Value.Why))];

    /// <summary>Looks into the letter box once.</summary>
    public void Look()
    {
        var files = new DirectoryInfo(Folder)
            .EnumerateFileSystemInfos("*.ics")
            .OrderBy(f => f.LastWriteTimeUtc)
            .ThenBy(f => f.Name, StringComparer.Ordinal)
            .ToArray();
        foreach (var gone in faults.Keys.Except(files.Select(f => f.Name)))
        {
            faults.TryRemove(gone, out _);
        }

        foreach (
            var file in files.Where(f => !faults.TryGetValue(f.Name, out var known) || known.Written != f.LastWriteTimeUtc).Take(MostFiles))
        {
            var (why, settled) = TryTake(file);
            if (why is null)
            {
                faults.TryRemove(file.Name, out _);
            }
            else if (settled || clock.GetUtcNow().UtcDateTime - file.LastWriteTimeUtc > Settles)
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
            // Whatever it is, the folder is looked into again: it must not end the program.
            catch (Exception e) when (e is not OutOfMemoryException)
            {
                if (database.Trouble is null)
                {
                    log.LogWarning("The desk's folder could not be looked into: {Why}", e.Message);
                }
            }
        }
        while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    /// <summary>Why it was not taken in, and whether that is so for good; null: it was.</summary>
    private (string? Why, bool Settled) TryTake(FileSystemInfo file)
    {
        if (!RegularFile.Is(file.FullName))
        {
            return ("It is not a file of its own but a folder, a link, a pipe or a device, so it is not opened.", true);
        }

        try
        {
            // Read apart: a disk that does not answer keeps the rest of the program from nothing.
            var reading = Task.Run(() => Take(file.FullName));
            var why = reading.Wait(Longest) ? reading.Result : "It takes too long to read.";
            if (why is null)
            {
                file.Delete();
            }

            return (why, false);
        }
        catch (AggregateException e) when (e.InnerException is IOException or UnauthorizedAccessException)
        {
            return ($"It could not be read ({e.InnerException.Message.TrimEnd('.')}).", false);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return ($"It was read but could not be removed ({e.Message.TrimEnd('.')}).", true);
        }
    }

    /// <summary>Null: it was taken in; else why not.</summary>
    private string? Take(string file)
    {
        using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        var bytes = new byte[DeskFolder.LargestFile + 1];
        var length = stream.ReadAtLeast(bytes, bytes.Length, throwOnEndOfStream: false);
        if (length > DeskFolder.LargestFile)
        {
            return "It is too large (over 1 MB).";
        }

        var text = new UTF8Encoding(false).GetString(bytes, 0, length).TrimStart('\uFEFF');
        if (CountOf(text, "BEGIN:VEVENT") > MostClasses)
        {
            return $"It has more than {MostClasses} classes.";
        }

        var (events, fault) = DeskCalendar.Read(text, zone);
        foreach (var now in events)
        {
            book.Keep(now, SessionOf(now));
        }

        return fault;
    }

    private static int CountOf(string text, string word)
    {
        var count = 0;
        for (
            var at = text.IndexOf(word, StringComparison.OrdinalIgnoreCase); at >= 0; at = text.IndexOf(
                word, at + word.Length, StringComparison.OrdinalIgnoreCase))
        {
            count++;
        }

        return count;
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
