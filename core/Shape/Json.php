<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** Pieces of JSON Schema that many slots share. */
final class Json
{
    public const NAME = ['type' => 'string', 'pattern' => '^[a-z][a-z0-9_]*$'];

    public const TIME = ['type' => 'string', 'pattern' => '^([01][0-9]|2[0-3]):[0-5][0-9]$'];

    /** @return array{'$ref': string} what is described under a name */
    public static function ref(string $name): array
    {
        return ['$ref' => "#/\$defs/{$name}"];
    }

    /** @return array<string, mixed> */
    public static function text(?int $most = null, int $least = 1): array
    {
        return ['type' => 'string'] + ($least > 0 ? ['minLength' => $least] : []) + ($most === null ? [] : ['maxLength' => $most]);
    }

    /**
     * One of several kinds, each an object that says which it is.
     *
     * @param  array<string, array<string, mixed>>  $kinds  the object of each
     * @return array<string, mixed>
     */
    public static function oneOfKinds(array $kinds): array
    {
        $cases = [];
        foreach ($kinds as $kind => $object) {
            $needed = array_values(array_filter(
                is_array($object['required'] ?? null) ? $object['required'] : [],
                static fn (mixed $key): bool => $key !== 'kind',
            ));
            $cases[] = [
                'if' => ['properties' => ['kind' => ['const' => $kind]], 'required' => ['kind']],
                'then' => ($needed === [] ? [] : ['required' => $needed])
                    + ['properties' => ['kind' => true] + (is_array($object['properties'] ?? null) ? $object['properties'] : [])]
                    + ['additionalProperties' => false],
            ];
        }

        return [
            'type' => 'object', 'required' => ['kind'], 'properties' => ['kind' => ['enum' => array_keys($kinds)]], 'allOf' => $cases,
        ];
    }
}
