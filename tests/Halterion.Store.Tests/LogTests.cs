using Halterion.Core.Logbook;

namespace Halterion.Store.Tests;

/// <summary>The log by itself: what it says of the version that was led.</summary>
public sealed class LogTests
{
    private const string Plan = """
        {"format":"halterion-class","version":1,"title":"t","slotMinutes":10,"blocks":[{"name":"A","phase":"main","stations":[{"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"squat"}]}]}]}
        """;

    /// <summary>
    /// The version is fixed by the first log and by no later one, whatever version that speaks of: between reading the session and
    /// keeping the log another screen may have saved the class.
    /// </summary>
    [Fact]
    public void The_first_log_fixes_the_version_for_good()
    {
        using var folder = new Folder();
        using var database = folder.Open();
        var classes = new Classes(database, TimeProvider.System);
        var first = new ClassRevision(Plan, "t", new Measure("1", null, null));
        var (id, session) = classes.Add(first, new SessionBooking(null, "UTC", 2, []));
        var (logs, sessions) = (new Logs(database, TimeProvider.System), new Sessions(database, TimeProvider.System));
        Assert.Null(sessions.Find(session!.Value)!.ClassVersion);

        var saved = logs.Save(session.Value, Basis.None, 1, new ClassLog([], "well"), _ => null);
        Assert.Equal(1, sessions.Find(session.Value)!.ClassVersion);
        Assert.True(classes.Save(id, new Basis(1), first with { Plan = Plan.Replace("40", "55", StringComparison.Ordinal) })!.Value.Saved);
        Assert.True(logs.Save(session.Value, new Basis(saved.Revision), 2, new ClassLog([], "very well"), _ => null).Done);
        Assert.Equal(1, sessions.Find(session.Value)!.ClassVersion);
        Assert.Equal("very well", logs.Find(session.Value)!.Value.Log.Note);
    }

    [Fact]
    public void A_log_that_another_screen_has_changed_is_not_written_over()
    {
        using var folder = new Folder();
        using var database = folder.Open();
        var (_, session) = new Classes(database, TimeProvider.System).Add(
            new ClassRevision(Plan, "t", new Measure("1", null, null)), new SessionBooking(null, "UTC", 2, []));
        var logs = new Logs(database, TimeProvider.System);
        Assert.True(logs.Save(session!.Value, Basis.None, 1, new ClassLog([], "theirs"), _ => null).Done);
        var late = logs.Save(session.Value, Basis.None, 1, new ClassLog([], "mine"), _ => null);
        Assert.False(late.Done);
        Assert.Equal("theirs", logs.Find(session.Value)!.Value.Log.Note);
    }
}
