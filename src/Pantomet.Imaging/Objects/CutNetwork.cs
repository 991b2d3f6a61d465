// Compiled by the build, not into the library: see Pantomet.Imaging.csproj.
using System;
using System.Collections.Generic;
using System.Globalization;
using System.IO;
using System.Linq;
using System.Text;
using Microsoft.Build.Framework;

/// <summary>
/// Rewrites the description of a network that names objects so that it tells where they are: what stands behind its last convolution is
/// dropped, height and width are free, and the layers that are looked at become its outputs.
/// </summary>
/// <remarks>
/// The description is a protobuf message (onnx.proto of the Open Neural Network Exchange): ModelProto.graph = 7; GraphProto.node = 1,
/// .initializer = 5, .input = 11, .output = 12, .value_info = 13; NodeProto.input = 1, .output = 2; TensorProto.name = 8;
/// NodeProto.op_type = 4, .attribute = 5; AttributeProto.name = 1, .f = 2; TensorProto.float_data = 4, .raw_data = 9, .external_data = 13, .data_location = 14 (EXTERNAL = 1); StringStringEntryProto.key = 1, .value = 2;
/// ValueInfoProto.name = 1, .type = 2; TypeProto.tensor_type = 1; Tensor.elem_type = 1, .shape = 2; TensorShapeProto.dim = 1;
/// Dimension.dim_param = 2.
/// </remarks>
public sealed class CutNetwork : Microsoft.Build.Utilities.Task
{
    /// <summary>The description as it comes.</summary>
    [Required]
    public string From { get; set; }

    /// <summary>Where the rewritten one goes.</summary>
    [Required]
    public string To { get; set; }

    /// <summary>The layers that become outputs, first to last.</summary>
    [Required]
    public string[] Layers { get; set; }

    // Weights of less stay in the description; the others begin at a page, as they are mapped.
    private const int LeastApart = 4096;
    private const int Page = 4096;

    /// <inheritdoc/>
    public override bool Execute()
    {
        var model = Read(File.ReadAllBytes(From));
        var graph = Read(model.Single(field => field.Number == 7).Bytes);
        var nodes = graph.Where(field => field.Number == 1).ToList();
        var last = nodes.FindIndex(node => Read(node.Bytes).Any(field => field.Number == 2 && field.Text == Layers.Last()));
        if (last < 0)
        {
            Log.LogError("The network has no layer " + Layers.Last() + ".");
            return false;
        }

        var kept = Folded(nodes.Take(last + 1).ToList(), graph);
        var used = new HashSet<string>(
            kept.SelectMany(node => Read(node.Bytes)).Where(field => field.Number == 1).Select(field => field.Text)
        );
        var weights = graph.Where(field => field.Number == 5 && used.Contains(NameOf(field, 8))).ToList();
        var named = new HashSet<string>(weights.Select(field => NameOf(field, 8)));
        var cut = new List<Field>(graph.Where(field => field.Number != 1 && field.Number != 5 && field.Number < 11));
        cut.AddRange(kept);
        Directory.CreateDirectory(Path.GetDirectoryName(To));
        using (var apart = File.Create(To + ".weights"))
        {
            cut.AddRange(weights.Select(field => new Field(5, Write(Apart(field, apart)))));
        }

        cut.AddRange(
            graph
                .Where(field => field.Number == 11 && used.Contains(NameOf(field, 1)))
                .Select(field => named.Contains(NameOf(field, 1)) ? field : Value(11, NameOf(field, 1), "n", "3", "height", "width"))
        );
        cut.AddRange(Layers.Select(layer => Value(12, layer)));
        File.WriteAllBytes(To, Write(model.Select(field => field.Number == 7 ? new Field(7, Write(cut)) : field)));
        return true;
    }

    // A normalisation behind a convolution is a factor and a summand for each channel, which its weights can hold: y = (x - mean) * scale /
    // sqrt(variance + epsilon) + bias (BatchNormalization, onnx operator set 7). To have it done when the network is opened costs all weights
    // once more in memory.
    private static List<Field> Folded(List<Field> nodes, List<Field> graph)
    {
        var folded = new List<Field>();
        for (var i = 0; i < nodes.Count; i++)
        {
            var (node, next) = (Read(nodes[i].Bytes), i + 1 < nodes.Count ? Read(nodes[i + 1].Bytes) : new List<Field>());
            var inputs = Texts(node, 1);
            var norm = Texts(next, 1);
            if (
                Texts(node, 4)[0] != "Conv"
                || inputs.Count != 2
                || !Texts(next, 4).Contains("BatchNormalization")
                || norm[0] != Texts(node, 2)[0]
            )
            {
                folded.Add(nodes[i]);
                continue;
            }

            var epsilon = Read(next.Single(field => field.Number == 5 && NameOf(field, 1) == "epsilon").Bytes)
                .Single(field => field.Number == 2);
            var (scale, bias, mean, variance) = (
                Values(graph, norm[1]),
                Values(graph, norm[2]),
                Values(graph, norm[3]),
                Values(graph, norm[4])
            );
            var factors = scale.Zip(variance, (one, spread) => one / Math.Sqrt(spread + BitConverter.ToSingle(epsilon.Bytes, 0))).ToArray();
            var weights = Values(graph, inputs[1]);
            var each = weights.Length / factors.Length;
            Replace(graph, inputs[1], weights.Select((weight, at) => (float)(weight * factors[at / each])));
            Replace(graph, norm[2], bias.Select((one, at) => (float)(one - (mean[at] * factors[at]))));
            folded.Add(
                new Field(
                    1,
                    Write(
                        node.Where(field => field.Number > 2)
                            .Concat(new[] { inputs[0], inputs[1], norm[2] }.Select(name => new Field(1, Encoding.UTF8.GetBytes(name))))
                            .Concat(next.Where(field => field.Number == 2))
                    )
                )
            );
            i++;
        }

        return folded;
    }

    private static List<string> Texts(List<Field> message, int number) =>
        message.Where(field => field.Number == number).Select(field => field.Text).ToList();

    private static int PlaceOf(List<Field> graph, string name) => graph.FindIndex(field => field.Number == 5 && NameOf(field, 8) == name);

    private static float[] Values(List<Field> graph, string name)
    {
        var bytes = Read(graph[PlaceOf(graph, name)].Bytes).Single(field => IsValues(field)).Bytes;
        var values = new float[bytes.Length / 4];
        Buffer.BlockCopy(bytes, 0, values, 0, bytes.Length);
        return values;
    }

    private static void Replace(List<Field> graph, string name, IEnumerable<float> values)
    {
        var place = PlaceOf(graph, name);
        var told = Read(graph[place].Bytes).Where(field => !IsValues(field)).ToList();
        told.Add(new Field(9, values.SelectMany(BitConverter.GetBytes).ToArray()));
        graph[place] = new Field(5, Write(told));
    }

    // Packed floats are the same bytes as raw ones: 32 bits each, the lowest byte first.
    private static bool IsValues(Field field) => (field.Number == 4 || field.Number == 9) && !field.Fixed;

    // What lies in a file of its own is mapped into memory where it lies, and not copied while the network is opened.
    private List<Field> Apart(Field weight, Stream apart)
    {
        var tensor = Read(weight.Bytes);
        var raw = tensor.SingleOrDefault(IsValues);
        if (raw == null || raw.Bytes.Length < LeastApart)
        {
            return tensor;
        }

        apart.SetLength((apart.Length + Page - 1) / Page * Page);
        apart.Position = apart.Length;
        var told = new List<Field>(tensor.Where(field => !IsValues(field)));
        told.Add(Entry("location", Path.GetFileName(To) + ".weights"));
        told.Add(Entry("offset", apart.Position.ToString(CultureInfo.InvariantCulture)));
        told.Add(Entry("length", raw.Bytes.Length.ToString(CultureInfo.InvariantCulture)));
        told.Add(new Field(14, 1UL));
        apart.Write(raw.Bytes, 0, raw.Bytes.Length);
        return told;
    }

    private static Field Entry(string key, string value) =>
        new Field(13, Write(new[] { new Field(1, Encoding.UTF8.GetBytes(key)), new Field(2, Encoding.UTF8.GetBytes(value)) }));

    private static string NameOf(Field field, int number) => Read(field.Bytes).First(inner => inner.Number == number).Text;

    // A value of 32-bit floats (elem_type 1); a side in digits is fixed, any other name is free, none at all leaves the shape open.
    private static Field Value(int number, string name, params string[] sides)
    {
        var tensor = new List<Field> { new Field(1, 1UL) };
        if (sides.Length > 0)
        {
            var shape = sides.Select(side => new Field(
                1,
                Write(
                    new[] { ulong.TryParse(side, out var fixedSide) ? new Field(1, fixedSide) : new Field(2, Encoding.UTF8.GetBytes(side)) }
                )
            ));
            tensor.Add(new Field(2, Write(shape)));
        }

        var type = Write(new[] { new Field(1, Write(tensor)) });
        return new Field(number, Write(new[] { new Field(1, Encoding.UTF8.GetBytes(name)), new Field(2, type) }));
    }

    private static List<Field> Read(byte[] message)
    {
        var fields = new List<Field>();
        var at = 0;
        while (at < message.Length)
        {
            var tag = Number(message, ref at);
            var number = (int)(tag >> 3);
            switch (tag & 7)
            {
                case 0:
                    fields.Add(new Field(number, Number(message, ref at)));
                    break;
                case 2:
                    var length = (int)Number(message, ref at);
                    var bytes = new byte[length];
                    Array.Copy(message, at, bytes, 0, length);
                    at += length;
                    fields.Add(new Field(number, bytes));
                    break;
                case 5:
                    fields.Add(new Field(number, message.Skip(at).Take(4).ToArray()) { Fixed = true });
                    at += 4;
                    break;
                default:
                    throw new InvalidDataException("Wire type " + (tag & 7) + " is not expected.");
            }
        }

        return fields;
    }

    private static ulong Number(byte[] message, ref int at)
    {
        ulong value = 0;
        for (var shift = 0; ; shift += 7)
        {
            var next = message[at++];
            value |= (ulong)(next & 0x7F) << shift;
            if (next < 0x80)
            {
                return value;
            }
        }
    }

    private static byte[] Write(IEnumerable<Field> fields)
    {
        var message = new MemoryStream();
        foreach (var field in fields)
        {
            Write(
                message,
                ((ulong)field.Number << 3)
                    | (
                        field.Bytes == null ? 0UL
                        : field.Fixed ? 5UL
                        : 2UL
                    )
            );
            if (field.Bytes == null)
            {
                Write(message, field.Value);
                continue;
            }

            if (!field.Fixed)
            {
                Write(message, (ulong)field.Bytes.Length);
            }

            message.Write(field.Bytes, 0, field.Bytes.Length);
        }

        return message.ToArray();
    }

    private static void Write(Stream message, ulong value)
    {
        for (; value >= 0x80; value >>= 7)
        {
            message.WriteByte((byte)(value | 0x80));
        }

        message.WriteByte((byte)value);
    }

    private sealed class Field
    {
        public Field(int number, byte[] bytes)
        {
            Number = number;
            Bytes = bytes;
        }

        public Field(int number, ulong value)
        {
            Number = number;
            Value = value;
        }

        public int Number { get; }

        public byte[] Bytes { get; }

        public ulong Value { get; }

        public bool Fixed { get; set; }

        public string Text => Encoding.UTF8.GetString(Bytes);
    }
}
