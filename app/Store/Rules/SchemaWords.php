<?php

declare(strict_types=1);

namespace App\Store\Rules;

use Opis\JsonSchema\Errors\ValidationError;
use VividLedger\Words\Words;

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
        ).'’' : Words::say('This');
        $schema = (array) $error->schema()->info()->data();

        return match ($error->keyword()) {
            'required' => Words::say('Missing here: {list}.', list: self::list((array) ($error->args()['missing'] ?? []))),
            'enum' => Words::say(
                '{shown} is not known here. It can be {list}.',
                shown: $shown,
                list: self::list((array) ($schema['enum'] ?? [])),
            ),
            'const' => Words::say(
                '{shown} is not known here. It has to be {list}.',
                shown: $shown,
                list: self::list([$schema['const'] ?? '']),
            ),
            'type' => Words::say('{shown} does not fit here, which takes {type}.', shown: $shown, type: implode(
                ' or ',
                array_map(
                    static fn (mixed $type): string => self::TYPES[(string) $type] ?? (string) $type,
                    (array) ($schema['type'] ?? []),
                ),
            )),
            'minItems' => Words::say('At least one is needed here.'),
            'maxItems' => Words::say('There are more than {maxItems} here.', maxItems: $schema['maxItems']),
            'uniqueItems' => Words::say('The same stands here twice.'),
            'minLength' => Words::say('This must not be empty.'),
            'maxLength' => Words::say('This has more than {most} characters.', most: $schema['maxLength']),
            'minimum' => Words::say('{shown} is less than {minimum}.', shown: $shown, minimum: $schema['minimum']),
            'pattern' => Words::say(
                '{shown} is no name of a field: lower-case letters, digits and underlines, joined by dots.',
                shown: $shown,
            ),
            'additionalProperties' => self::unknown($error, $schema),
            default => Words::say('This does not fit here.'),
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

        return $unknown === [] ? null : Words::say('Not known here: {list}.', list: self::list($unknown));
    }

    /** @param  array<array-key, mixed>  $names */
    private static function list(array $names): string
    {
        return implode(', ', array_map(static fn (mixed $name): string => is_scalar($name) ? (string) $name : '?', $names));
    }
}
