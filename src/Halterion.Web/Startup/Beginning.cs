using System.Text.Json;
using Halterion.Core.Logbook;
using Halterion.Store;
using Halterion.Web.Demo;
using Halterion.Web.Library;
using Halterion.Web.Live;
using Microsoft.Data.Sqlite;

namespace Halterion.Web.Startup;

/// <summary>What is done with data that was just opened, at the start or after a copy was put back.</summary>
internal sealed class Beginning(
    Database database, Current current, Classes classes, Sessions sessions, Logs logs, DemoStudio demo, Followers followers,
        SessionChecks checks, CommandLine settings)
{
    /// <summary>Data that cannot be read is told to everybody who asks; the server stays up.</summary>
    public void Begin()
    {
        try
        {
            if (database.Trouble is null)
            {
                Read();
            }
        }
        catch (Exception e) when (e is JsonException or FormatException or InvalidOperationException or SqliteException or StoreException)
        {
            database.Distrust($"it cannot be read ({e.Message.TrimEnd('.')})");
        }

        if (database.Trouble is { } trouble)
        {
            Console.Error.WriteLine(trouble.Words);
        }
    }

    /// <summary>Logs of an older version say what was done; what it was is looked up in their classes, once.</summary>
    private void FillIn()
    {
        foreach (var id in logs.WithoutWork())
        {
            var plan = sessions.Find(id) is { ClassVersion: { } version } session && classes.At(session.ClassId, version) is { } stored
                ? current.Evaluator.Evaluate(stored.Plan).Plan : null;
            logs.FillIn(id, use => plan is null ? null : LoggedWork.Of(plan, use));
        }
    }

    private void Read()
    {
        current.Forget();
        followers.Forget();
        checks.Forget();
        current.Measure(classes);
        FillIn();
        if (settings.Demo)
        {
            demo.Load();
        }
    }
}
