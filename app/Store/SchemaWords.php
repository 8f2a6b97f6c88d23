<?php

declare(strict_types=1);

namespace App\Store;

use Opis\JsonSchema\Errors\ValidationError;

/** What the checker of JSON Schema found, in words for the person who wrote the file. */
final class SchemaWords
{
    private const TYPES = [
        'object' => 'an object { }', 'array' => 'a list [ ]', 'string' => 'text', 'integer' => 'a whole number', 'number' => 'a number',
        'boolean' => 'true or false', 'null' => 'nothing',
    ];

    /** @return ?string null for what only repeats another finding */
    public static function said(ValidationError $error): ?string
    {
        $value = $error->data()->value();
        $shown = is_scalar($value) ? '‘'.mb_strimwidth(
            is_bool($value) ? ($value ? 'true' : 'false') : (string) $value,
            0,
            40,
            '…',
        ).'’' : 'This';
        $schema = (array) $error->schema()->info()->data();

        return match ($error->keyword()) {
            'required' => 'Missing here: '.self::list((array) ($error->args()['missing'] ?? [])).'.',
            'enum' => "{$shown} is not known here. It can be ".self::list((array) ($schema['enum'] ?? [])).'.',
            'const' => "{$shown} is not known here. It has to be ".self::list([$schema['const'] ?? '']).'.',
            'type' => "{$shown} does not fit here, which takes ".implode(
                ' or ',
                array_map(
                    static fn (mixed $type): string => self::TYPES[(string) $type] ?? (string) $type,
                    (array) ($schema['type'] ?? []),
                ),
            ).'.',
            'minItems' => 'At least one is needed here.',
            'maxItems' => "There are more than {$schema['maxItems']} here.",
            'uniqueItems' => 'The same stands here twice.',
            'minLength' => 'This must not be empty.',
            'maxLength' => "This has more than {$schema['maxLength']} characters.",
            'minimum' => "{$shown} is less than {$schema['minimum']}.",
            'pattern' => "{$shown} is no name of a field: lower-case letters, digits and underlines, joined by dots.",
            'additionalProperties' => self::unknown($error, $schema),
            default => 'This does not fit here.',
        };
    }

    /**
     * Members that are known but wrong are told at their own place.
     *
     * @param  array<array-key, mixed>  $schema
     */
    private static function unknown(ValidationError $error, array $schema): ?string
    {
        $known = array_keys((array) ($schema['properties'] ?? []));
        $unknown = array_values(array_diff((array) ($error->args()['properties'] ?? []), $known));

        return $unknown === [] ? null : 'Not known here: '.self::list($unknown).'.';
    }

    /** @param  array<array-key, mixed>  $names */
    private static function list(array $names): string
    {
        return implode(', ', array_map(static fn (mixed $name): string => is_scalar($name) ? (string) $name : '?', $names));
    }
}
