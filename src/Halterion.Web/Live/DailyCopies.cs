using Halterion.Store;
using Microsoft.Data.Sqlite;

namespace Halterion.Web.Live;

/// <summary>Makes a copy of the data on each day of use: soon after the start, and again when a day begins.</summary>
internal sealed class DailyCopies(Database database, TimeProvider clock, ILogger<DailyCopies> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(15);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // The start is not kept waiting for it.
        await Task.Yield();
        using var timer = new PeriodicTimer(Every, clock);
        do
        {
            try
            {
                if (database.Trouble is null)
                {
                    database.Copies.OfToday(clock);
                }
            }
            catch (Exception e) when (e is SqliteException or StoreException or IOException or UnauthorizedAccessException)
            {
                log.LogWarning("Today’s copy of the data was not made: {Why}", e.Message);
            }
        }
        while (await timer.WaitForNextTickAsync(stoppingToken));
    }
}
