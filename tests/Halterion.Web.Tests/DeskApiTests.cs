using System.Net;
using System.Text.Json.Nodes;
using Halterion.Web.Library;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>Files in the letter box of the booking desk, and who is then expected.</summary>
public sealed class DeskApiTests(Studio studio) : IClassFixture<Studio>
{
    private string Folder => Path.Combine(studio.Folder, "desk");

    private string Drop(string name, int sequence, string starts, params string[] attendees)
    {
        var file = Path.Combine(Folder, name);
        Directory.CreateDirectory(Folder);
        File.WriteAllText(file + ".part", $"""
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//A desk//EN
            METHOD:REQUEST
            BEGIN:VEVENT
            UID:{name}@desk.example
            SEQUENCE:{sequence}
            DTSTAMP:20261120T120000Z
            DTSTART:{starts}
            SUMMARY:Test class
            {string.Join('\n', attendees.Select(a => $"ATTENDEE;{a}:mailto:{a.Split("CN=")[1].Replace(' ', '.')}@desk.example"))}
            END:VEVENT
            END:VCALENDAR

            """.ReplaceLineEndings("\r\n"));
        File.Move(file + ".part", file + ".ics", overwrite: true);
        return file + ".ics";
    }

    /// <summary>Waits for the letter box to be looked into.</summary>
    private static async Task Until(Func<Task<bool>> so)
    {
        for (var i = 0; !await so(); i++)
        {
            Assert.True(i < 100, "It was not taken in within ten seconds.");
            await Task.Delay(100, TestContext.Current.CancellationToken);
        }
    }

    private static Task Taken(string file) => Until(() => Task.FromResult(!File.Exists(file)));

    private async Task<string> Session(string startsAt)
    {
        var view = await studio.Post("/api/classes/file", Plan);
        var session = (string)view["sessions"]![0]!["id"]!;
        using var saved = await studio.Put(
            $"/api/sessions/{session}", $$$"""{"booking":{"zone":"Europe/Lisbon","headCount":12,"startsAt":"{{{startsAt}}}"}}""", "1");
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        return session;
    }

    /// <summary>Who is expected, and how many in all.</summary>
    private async Task<string> Expected(string session)
    {
        var people = (await studio.Get("/api/people")).AsArray().ToDictionary(p => (string)p!["id"]!, p => (string)p!["name"]!);
        var booking = (await studio.Get($"/api/sessions/{session}"))["booking"]!;
        return $"{string.Join(", ", (booking["expected"]?.AsArray() ?? []).Select(p => people[(string)p!]).Order())}: "
            + $"{booking["headCount"]}";
    }

    private async Task<JsonNode> Heard(string name) =>
        (await studio.Get("/api/desk"))["classes"]!.AsArray().Single(c => (string)c!["uid"]! == $"{name}@desk.example")!;

    private async Task<string> Person(string name) => (string)(await studio.Post("/api/people", $$"""{"name":"{{name}}"}"""))["id"]!;

    private async Task Answer(JsonNode heard, string guest, string? person)
    {
        var key = heard["guests"]!.AsArray().Single(g => (string)g!["name"]! == guest)!["key"];
        using var answered = await studio.Put(
            $"/api/desk/guests/{key}", $$"""{"person":{{(person is null ? "null" : $"\"{person}\"")}}}""");
        Assert.Equal(HttpStatusCode.NoContent, answered.StatusCode);
    }

    [Fact]
    public async Task The_desk_is_followed_unknown_names_are_asked_about_and_what_is_older_is_passed_over()
    {
        var (ada, bob) = (await Person("Ada Desk"), await Person("Bob Desk"));
        var session = await Session("2031-12-02T18:00");
        const string starts = "20311202T180000Z";
        var file = Drop(
            "one", 1, starts, "PARTSTAT=ACCEPTED;CN=Ada Desk", "PARTSTAT=ACCEPTED;CN=Wren Alder", "PARTSTAT=TENTATIVE;CN=Bob Desk");
        await Taken(file);
        Assert.Equal("Ada Desk: 2", await Expected(session));
        var heard = await Heard("one");
        Assert.Equal(session, (string)heard["session"]!);
        Assert.Equal([("Ada Desk", false), ("Wren Alder", true), ("Bob Desk", false)], heard["guests"]!.AsArray()
            .Select(g => ((string)g!["name"]!, (bool)g["asked"]!)));

        // Put in by hand: the desk knows nothing of them, so they stay. Who was answered for is expected at once.
        var cy = await Person("Cy Desk");
        var revision = (int)(await studio.Get($"/api/sessions/{session}"))["revision"]!;
        using var byHand = await studio.Put(
            $"/api/sessions/{session}",
            $$$"""{"booking":{"zone":"Europe/Lisbon","headCount":3,"startsAt":"2031-12-02T18:00","expected":["{{{ada}}}","{{{cy}}}"]}}""",
            $"{revision}");
        Assert.Equal(HttpStatusCode.OK, byHand.StatusCode);
        await Answer(heard, "Wren Alder", await Person("Wren Alder"));
        Assert.Equal("Ada Desk, Cy Desk, Wren Alder: 3", await Expected(session));

        // A place falls free: one cancels, who waited comes, and somebody whom nobody knows is only counted.
        await Taken(Drop("one", 2, starts, "PARTSTAT=DECLINED;CN=Ada Desk", "PARTSTAT=ACCEPTED;CN=Wren Alder",
            "PARTSTAT=ACCEPTED;CN=Bob Desk", "PARTSTAT=ACCEPTED;CN=Tamsin Reed"));
        heard = await Heard("one");
        await Answer(heard, "Tamsin Reed", null);
        Assert.Equal("Bob Desk, Cy Desk, Wren Alder: 4", await Expected(session));
        Assert.DoesNotContain((await Heard("one"))["guests"]!.AsArray(), g => (bool)g!["asked"]!);

        // An older file that comes late changes nothing.
        await Taken(Drop("one", 1, starts, "PARTSTAT=ACCEPTED;CN=Ada Desk"));
        Assert.Equal("Bob Desk, Cy Desk, Wren Alder: 4", await Expected(session));

        // What is held of somebody says so, and goes with them.
        Assert.Equal("Test class 2031-12-02 18:00: comes", (string)(await studio.Get($"/api/people/{bob}/export"))["booked"]![0]!);
        using var erased = await studio.CreateClient().DeleteAsync($"/api/people/{bob}");
        Assert.Equal(HttpStatusCode.NoContent, erased.StatusCode);
        Assert.DoesNotContain("Bob Desk", (await studio.Get("/api/desk")).ToJsonString(), StringComparison.Ordinal);

        // A class that was started is history.
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        await studio.Post($"/api/leads/{lead["id"]}/commands", $$"""{"expected":0,"commands":[{"id":"{{Guid.NewGuid()}}","kind":"start","at":{{DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()}}}]}""");
        var before = await Expected(session);
        await Taken(Drop("one", 9, starts, "PARTSTAT=ACCEPTED;CN=Ada Desk"));
        Assert.Equal(before, await Expected(session));
        Assert.True((bool)(await Heard("one"))["held"]!);
    }

    [Fact]
    public async Task A_class_that_nobody_knows_is_asked_about_and_one_of_two_is_not_guessed()
    {
        var ada = await Person("Ada Twice");
        var (first, second) = (await Session("2031-12-03T18:00"), await Session("2031-12-03T18:00"));
        await Taken(Drop("two", 1, "20311203T180000Z", "CN=Ada Twice"));
        Assert.Null((await Heard("two"))["session"]);
        Assert.Equal(": 12", await Expected(first));
        Assert.Contains(second, (await studio.Get("/api/desk"))["choices"]!.AsArray().Select(c => (string)c!["session"]!));

        async Task Link(string? session, HttpStatusCode status = HttpStatusCode.NoContent)
        {
            using var linked = await studio.Put(
                "/api/desk/link", $$"""{"uid":"two@desk.example","session":{{(session is null ? "null" : $"\"{session}\"")}}}""");
            Assert.Equal(status, linked.StatusCode);
        }

        await Link(first);
        Assert.Equal("Ada Twice: 1", await Expected(first));
        await Link(second);
        Assert.Equal(": 0", await Expected(first));
        Assert.Equal("Ada Twice: 1", await Expected(second));
        await Link(Guid.NewGuid().ToString(), HttpStatusCode.NotFound);
        await Link(null);
        Assert.Equal(": 0", await Expected(second));
        using var nobody = await studio.Put($"/api/desk/guests/{new string('0', 32)}", $$"""{"person":"{{ada}}"}""");
        Assert.Equal(HttpStatusCode.NotFound, nobody.StatusCode);
    }

    /// <summary>What is no list keeps nobody waiting, leads nowhere, and is told; the list beside it is taken in.</summary>
    [Fact]
    public async Task Links_pipes_and_files_without_end_are_set_aside_and_the_others_go_on()
    {
        if (!OperatingSystem.IsLinux())
        {
            return;
        }

        Directory.CreateDirectory(Folder);
        var outside = Path.GetTempFileName();
        File.SetUnixFileMode(outside, (UnixFileMode)Convert.ToInt32("644", 8));
        string At(string name) => Path.Combine(Folder, name);
        File.CreateSymbolicLink(At("a-link.ics"), outside);
        File.CreateSymbolicLink(At("b-dangling.ics"), At("nowhere"));
        File.CreateSymbolicLink(At("c-zero.ics"), "/dev/zero");
        System.Diagnostics.Process.Start("mkfifo", At("d-pipe.ics")).WaitForExit();
        Directory.CreateDirectory(At("e-folder.ics"));
        await File.WriteAllBytesAsync(At("f-large.ics"), new byte[1_000_001], TestContext.Current.CancellationToken);
        await File.WriteAllTextAsync(
            At("g-many.ics"),
            "BEGIN:VCALENDAR\r\n" + string.Concat(Enumerable.Repeat("BEGIN:VEVENT\r\nEND:VEVENT\r\n", 201)) + "END:VCALENDAR\r\n",
            TestContext.Current.CancellationToken);
        using (var socket = new System.Net.Sockets.Socket(System.Net.Sockets.AddressFamily.Unix, System.Net.Sockets.SocketType.Stream, 0))
        {
            socket.Bind(new System.Net.Sockets.UnixDomainSocketEndPoint(At("h-socket.ics")));
            await Taken(Drop("z-good", 1, "20311206T180000Z", "CN=Ada Late"));
            async Task<Dictionary<string, string>> Faults() =>
                (await studio.Get("/api/desk"))["faults"]!.AsArray().ToDictionary(f => (string)f!["file"]!, f => (string)f!["why"]!);
            await Until(async () => (await Faults()).Count >= 8);
            var faults = await Faults();
            Assert.All(["a-link.ics", "b-dangling.ics", "c-zero.ics", "d-pipe.ics", "e-folder.ics", "h-socket.ics"],
                name => Assert.StartsWith("It is not a file of its own", faults[name], StringComparison.Ordinal));
            Assert.Equal("It is too large (over 1 MB).", faults["f-large.ics"]);
            Assert.Equal("It has more than 200 classes.", faults["g-many.ics"]);
        }

        Assert.Equal(("644", true), (Convert.ToString((int)File.GetUnixFileMode(outside), 8), File.Exists(outside)));
        foreach (var left in Directory.EnumerateFileSystemEntries(Folder))
        {
            if (Directory.Exists(left) && new DirectoryInfo(left).LinkTarget is null)
            {
                Directory.Delete(left);
            }
            else
            {
                File.Delete(left);
            }
        }

        File.Delete(outside);
    }

    [Fact]
    public async Task A_file_that_cannot_be_read_stays_and_is_said_until_it_is_written_anew()
    {
        Directory.CreateDirectory(Folder);
        var file = Path.Combine(Folder, "broken.ics");
        await File.WriteAllTextAsync(file, "not a calendar", TestContext.Current.CancellationToken);
        async Task<bool> Said() => (await studio.Get("/api/desk"))["faults"]!.AsArray().Any(f => (string)f!["file"]! == "broken.ics");
        // It may still be being written: not at once.
        await Until(Said);
        Assert.True(File.Exists(file));
        File.Move(Drop("mended", 1, "20311204T180000Z", "CN=Ada Late"), file, overwrite: true);
        File.SetLastWriteTimeUtc(file, DateTime.UtcNow);
        await Taken(file);
        Assert.False(await Said());
        using var outside = await studio.Put("/api/desk/simulated", """{"on":true}""");
        Assert.Equal(HttpStatusCode.NotFound, outside.StatusCode);
    }
}
