// Compiled by the build, not into the library: see Pantomet.Imaging.csproj.
using System;
using System.Collections.Generic;
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

        var kept = nodes.Take(last + 1).ToList();
        var used = new HashSet<string>(
            kept.SelectMany(node => Read(node.Bytes)).Where(field => field.Number == 1).Select(field => field.Text)
        );
        var weights = graph.Where(field => field.Number == 5 && used.Contains(NameOf(field, 8))).ToList();
        var named = new HashSet<string>(weights.Select(field => NameOf(field, 8)));
        var cut = new List<Field>(graph.Where(field => field.Number != 1 && field.Number != 5 && field.Number < 11));
        cut.AddRange(kept);
        cut.AddRange(weights);
        cut.AddRange(
            graph
                .Where(field => field.Number == 11 && used.Contains(NameOf(field, 1)))
                .Select(field => named.Contains(NameOf(field, 1)) ? field : Value(11, NameOf(field, 1), "n", "3", "height", "width"))
        );
        cut.AddRange(Layers.Select(layer => Value(12, layer)));
        Directory.CreateDirectory(Path.GetDirectoryName(To));
        File.WriteAllBytes(To, Write(model.Select(field => field.Number == 7 ? new Field(7, Write(cut)) : field)));
        return true;
    }

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
