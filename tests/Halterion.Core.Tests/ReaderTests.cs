using System.Text;
using System.Text.Json.Nodes;
using CsCheck;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

public class ReaderTests
{
    private static readonly string Whole = With(
        Block(
            """ "betweenStations":5,"rounds":2 """,
            Station("""{"kind":"reps","amount":10}""", """ "sides":"each" """),
            Station("""{"kind":"time","amount":40}""")) + ""","""
        + """{"name":"Talk","phase":"talk","format":"talk","seconds":60}""");

    [Theory]
    [InlineData("/title", "null", "/title")]
    [InlineData("/title", "\"  \"", "/title")]
    [InlineData("/slotMinutes", "4", "/slotMinutes")]
    [InlineData("/slotMinutes", "45.5", "/slotMinutes")]
    [InlineData("/slotMinutes", "4.5e1", "/slotMinutes")]
    [InlineData("/aim", "\"Strength\"", "/aim")]
    [InlineData("/colour", "1", "/colour")]
    [InlineData("/moves", """[{"id":"mine","name":"Mine","family":"squat"},{"id":"mine","name":"Mine","family":"squat"}]""", "/moves/1/id")]
    [InlineData("/moves", """[{"id":"My squat","name":"Mine"}]""", "/moves/0")]
    [InlineData("/moves", """[{"id":"mine","name":"Mine","family":"squat","tempo":"0-0-0-0"}]""", "/moves/0/tempo")]
    [InlineData("/waivers", """[{"code":"time.over","place":"/slotMinutes"}]""", "/waivers/0")]
    [InlineData("/blocks/0/windowSeconds", "40", "/blocks/0/windowSeconds")]
    [InlineData("/blocks/0/betweenSets", "40", "/blocks/0/betweenSets")]
    [InlineData("/blocks/0/gate", "\"tap\"", "/blocks/0/gate")]
    [InlineData("/blocks/0/rounds", "21", "/blocks/0/rounds")]
    [InlineData("/blocks/0/optionalRounds", "2", "/blocks/0/optionalRounds")]
    [InlineData("/blocks/0/sidePass", "\"round\"", "/blocks/0/stations/0/sides")]
    [InlineData("/blocks/0/startEverySeconds", "60", "/blocks/0/betweenStations")]
    [InlineData("/blocks/0/stations/0/chunk", "0", "/blocks/0/stations/0/chunk")]
    [InlineData("/blocks/0/stations/1/chunk", "5", "/blocks/0/stations/1/chunk")]
    [InlineData("/blocks/0/stations/0/waiting", "[]", "/blocks/0/stations/0/waiting")]
    [InlineData("/blocks/0/stations/0/dose", "[]", "/blocks/0/stations/0/dose")]
    [InlineData("/blocks/0/stations/0/dose/0/amount", "[10,{\"from\":12,\"to\":8}]", "/blocks/0/stations/0/dose/0/amount/1/to")]
    [InlineData("/blocks/0/stations/0/dose/0/tempo", "\"2-0-1\"", "/blocks/0/stations/0/dose/0/tempo")]
    [InlineData("/blocks/0/stations/0/dose/0/tempo", "\"0-0-0-0\"", "/blocks/0/stations/0/dose/0/tempo")]
    [InlineData("/blocks/0/stations/0/dose/0/side", "\"left\"", "/blocks/0/stations/0/dose/0/side")]
    [InlineData("/blocks/0/stations/1/dose/0/tempo", "\"2-0-1-0\"", "/blocks/0/stations/1/dose/0/tempo")]
    [InlineData("/blocks/0/stations/0/options/0/move", "\"moonwalk\"", "/blocks/0/stations/0/options/0/move")]
    [InlineData("/blocks/0/stations/0/options/0/scale", "0.5", "/blocks/0/stations/0/options/0/scale")]
    [InlineData("/blocks/0/stations/0/options/0/tier", "\"harder\"", "/blocks/0/stations/0/options")]
    [InlineData("/blocks/0/stations/0/options/0/parts", "{\"2\":{}}", "/blocks/0/stations/0/options/0/parts/2")]
    [InlineData("/blocks/0/stations/0/options/0/load", "{\"kg\":0.1}", "/blocks/0/stations/0/options/0/load/kg")]
    [InlineData("/blocks/1/rounds", "1", "/blocks/1/rounds")]
    [InlineData("/blocks/1/seconds", "0", "/blocks/1/seconds")]
    public void A_fault_is_named_where_it_stands(string at, string value, string pointer)
    {
        Assert.Empty(Evaluate(Whole).Faults);
        var changed = Json(Whole);
        if (value == "null")
        {
            changed[at[1..]] = null;
        }
        else
        {
            new Edit(at, Json(value)).ApplyTo(changed);
        }

        Assert.Contains(Evaluate(changed.ToJsonString()).Faults, f => f.Pointer == pointer && f.Detail.Length > 0 && f.Right.Length > 0);
    }

    [Fact]
    public void All_faults_come_at_once()
    {
        var broken = Whole.Replace(
            "\"slotMinutes\":60",
            "\"slotMinutes\":0,\"slotMinutes\":1",
            StringComparison.Ordinal).Replace("\"amount\":40", "\"amount\":\"x\"", StringComparison.Ordinal);
        Assert.Equal(
            ["/slotMinutes", "/slotMinutes", "/blocks/0/stations/1/dose/0/amount"],
            Evaluate(broken).Faults.Select(f => f.Pointer));
    }

    [Theory]
    [InlineData("")]
    [InlineData("{")]
    [InlineData("[]")]
    [InlineData("\"\\ud800\"")]
    [InlineData("{\"title\":\"\\ud800\",\"\\ud800\":1}")]
    public void What_is_no_class_is_told_so(string text) => Assert.NotEmpty(Evaluate(text).Faults);

    [Fact]
    public void Depth_size_and_length_are_bounded()
    {
        Assert.NotEmpty(Evaluate(new string('[', 40) + new string(']', 40)).Faults);
        Assert.NotEmpty(ClassReader.Read(new byte[ClassReader.MaxBytes + 1], Library).Faults);
        var long24 = With(string.Join(",", Enumerable.Repeat("""{"name":"Long","phase":"talk","format":"talk","seconds":3600}""", 25)));
        Assert.Equal("/blocks", Assert.Single(Evaluate(long24).Faults).Pointer);
        var pieces = With(
            Block(""" "rounds":20 """,
                [
                    .. Enumerable.Repeat(
                        Station("""{"kind":"reps","amount":80,"tempo":"0.01-0-0-0"}""", """ "sides":"each","chunk":1,"switchSeconds":1 """),
                        16)]));
        Assert.Equal("/blocks", Assert.Single(Evaluate(pieces).Faults).Pointer);
    }

    [Fact]
    public void A_byte_order_mark_does_no_harm() =>
        Assert.True(ClassReader.Read(Encoding.UTF8.GetBytes("\uFEFF" + Whole), Library).IsValid);

    /// <summary>Whatever is put in the place of whatever stands in a class, reading ends in a plan or in faults with pointers.</summary>
    [Fact]
    public void Random_damage_never_throws()
    {
        string[] values = [
            "null", "-1", "1e9", "0.001", "\"\"", "\"X\"", "[]", "{}", "[[]]", "{\"from\":1}", "true", "99999999999999999999", "[1,null]"];
        var places = Places(Json(Whole), "").ToArray();
        Gen.Select(Gen.Int[0, places.Length - 1].Select(i => places[i]),
            Gen.Int[0, values.Length - 1].Select(i => values[i])).Sample((place, value) =>
        {
            var text = Damaged(place, value);
            var result = Evaluate(text);
            return (result.Evaluation is not null) != (result.Faults.Length > 0)
                && result.Faults.All(f => f.Pointer.Length == 0 || f.Pointer[0] == '/');
        });
    }

    private static string Damaged(string place, string value)
    {
        var root = Json(Whole);
        const string mark = "\"@@\"";
        new Edit(place, JsonValue.Create("@@")).ApplyTo(root);
        return root.ToJsonString().Replace(mark, value, StringComparison.Ordinal);
    }

    private static IEnumerable<string> Places(JsonNode? node, string at) => node switch
    {
        JsonObject o => o.SelectMany(p => Places(p.Value, $"{at}/{p.Key}").Prepend($"{at}/{p.Key}")),
        JsonArray a => a.SelectMany((item, i) => Places(item, $"{at}/{i}").Prepend($"{at}/{i}")),
        _ => [],
    };
}
