using System.Text.Json;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using static Pantomet.Core.Rules.RulesWriter;

namespace Pantomet.Core.Rules;

/// <summary>Writes what a slot puts over its pictures.</summary>
internal static class DressWriter
{
    public static void Write(Utf8JsonWriter json, Dress dress)
    {
        json.WriteStartObject();
        if (dress.Fade is { } fade)
        {
            json.WriteStartObject("fade");
            json.WriteString("to", fade.To.ToString());
            NumberIf(json, "amount", fade.Amount);
            if (fade.Goal is { } goal)
            {
                json.WriteString("ink", goal.Ink.ToString());
                json.WriteNumber("contrast", goal.Ratio);
            }

            if (fade.Area != Frame.Whole)
            {
                AreaOf(json, "area", fade.Area);
            }

            WordUnless(json, "reach", fade.Reach, FadeReach.All);
            json.WriteEndObject();
        }

        if (dress.Title is { } title)
        {
            json.WriteStartObject("title");
            json.WriteString("text", title.Text);
            json.WriteString("font", title.Font);
            json.WriteNumber("weight", title.Weight);
            json.WriteNumber("size", title.Size);
            json.WriteString("ink", title.Ink?.ToString() ?? "auto");
            if (title.Area != Frame.Whole)
            {
                AreaOf(json, "area", title.Area);
            }

            WordUnless(json, "align", title.Align, TextAlign.Left);
            NumberIf(json, "contrast", title.Contrast);
            FlagIf(json, "fade", title.Fade);
            json.WriteEndObject();
        }

        if (dress.Mark is { } mark)
        {
            json.WriteStartObject("mark");
            json.WriteString("file", mark.File);
            TextIf(json, "onDark", mark.OnDark);
            json.WriteString("at", DressReader.Word(mark.At));
            json.WriteNumber("share", mark.Share);
            json.WriteNumber("margin", mark.Margin);
            json.WriteNumber("opacity", mark.Opacity);
            json.WriteEndObject();
        }

        json.WriteEndObject();
    }
}
