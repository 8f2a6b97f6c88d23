<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Store\JsonLines;
use App\Store\Rules\RuleSchema;
use App\Store\Rules\SchemaWords;
use Opis\JsonSchema\Validator;
use VividLedger\Words\Words;

/** One document of a setup as text, and back. The version stands in setup.json; the schemas are published in docs/schema. */
final class SetupFile
{
    private const BASE = 'https://vividledger.example/schema/';

    private Validator $validator;

    public function __construct()
    {
        $this->validator = new Validator(max_errors: 20, stop_at_first_error: false);
        foreach (SetupParts::all() as $part) {
            $this->validator->resolver()?->registerRaw((string) json_encode(self::schema($part)));
        }
        $this->validator->resolver()?->registerRaw((string) file_get_contents(base_path(RuleSchema::PATH)), self::BASE
            .basename(RuleSchema::PATH));
    }

    /**
     * @param  class-string<SetupPart>  $part
     * @return array<string, mixed> as it is published
     */
    public static function schema(string $part): array
    {
        $own = $part::schema();

        return [
            '$schema' => 'https://json-schema.org/draft/2020-12/schema', '$id' => self::BASE.self::name($part), 'type' => 'object',
            'additionalProperties' => false,
        ] + ['properties' => ['$schema' => ['type' => 'string']] + $own['properties']] + $own;
    }

    /** @param  class-string<SetupPart>  $part */
    public static function published(string $part): string
    {
        return json_encode(
            self::schema($part),
            JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
        )."\n";
    }

    /** @param  class-string<SetupPart>  $part */
    public static function name(string $part): string
    {
        return 'setup-'.rtrim($part::folder(), 's').'.schema.json';
    }

    /**
     * @param  class-string<SetupPart>  $part
     * @param  array<string, mixed>  $document
     */
    public static function write(string $part, array $document): string
    {
        return json_encode(
            ['$schema' => self::name($part)] + self::withObjects($part::schema(), $document),
            JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
        )."\n";
    }

    /**
     * @param  class-string<SetupPart>  $part
     * @return array{array<string, mixed>, list<array{at: string, code: string, message: string}>} what it says, and what is wrong with it
     */
    public function read(string $part, string $path, string $text): array
    {
        try {
            $data = json_decode($text, false, 64, JSON_THROW_ON_ERROR);
        } catch (\JsonException) {
            $line = JsonLines::firstBad($text);

            return [[], [['at' => $path, 'code' => 'malformed_json', 'message' => Words::say(
                'This is not JSON: line {line} cannot be read.',
                line: $line,
            )]]];
        }
        $problems = [];
        $error = $this->validator->validate($data, self::BASE.self::name($part))->error();
        foreach ($error === null ? [] : RuleSchema::leaves($error) as $leaf) {
            $at = implode('', array_map(static fn (int|string $step): string => "/{$step}", $leaf->data()->fullPath()));
            $message = SchemaWords::said($leaf);
            if ($message !== null) {
                $problems[$at] ??= ['at' => "{$path}#{$at}", 'code' => 'malformed', 'message' => $message];
            }
        }
        $document = (array) json_decode($text, true, 64, JSON_THROW_ON_ERROR);
        unset($document['$schema']);

        return [$document, array_values($problems)];
    }

    /**
     * An object that is empty is written {}, where PHP would write a list.
     *
     * @param  array<string, mixed>  $schema
     */
    private static function withObjects(array $schema, mixed $value): mixed
    {
        if (! is_array($value)) {
            return $value;
        }
        $isObject = ($schema['type'] ?? 'object') === 'object' && ! isset($schema['items']);
        foreach ($value as $name => $of) {
            $below = $schema['properties'][$name] ?? $schema['additionalProperties'] ?? $schema['items'] ?? [];
            $value[$name] = is_array($below) && $below !== [] && ! isset($below['$ref']) ? self::withObjects($below, $of) : $of;
        }

        return $value === [] && $isObject && $schema !== [] ? new \stdClass : $value;
    }
}
