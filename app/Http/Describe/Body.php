<?php

declare(strict_types=1);

namespace App\Http\Describe;

use OpenApi\Attributes as OA;

/** A JSON body. A name that ends in "?" may be left out. */
#[\Attribute(\Attribute::TARGET_METHOD)]
final class Body extends OA\RequestBody
{
    /**
     * @param  array<string, string>  $members type by name: string, integer, strings, integers, boolean, object, objects, person or
     *     people, or a few words with "|" between them
     */
    public function __construct(array $members)
    {
        $properties = [];
        $required = [];
        foreach ($members as $name => $type) {
            $optional = str_ends_with($name, '?');
            $name = rtrim($name, '?');
            $properties[] = match ($type) {
                'object' => new OA\Property(property: $name, type: 'object', additionalProperties: true),
                'strings' => new OA\Property(property: $name, type: 'array', items: new OA\Items(type: 'string')),
                'objects' => new OA\Property(
                    property: $name,
                    type: 'array',
                    items: new OA\Items(type: 'object', additionalProperties: true),
                ),
                'person' => new OA\Property(property: $name, nullable: $optional ? true : null, oneOf: self::person()),
                'people' => new OA\Property(property: $name, type: 'array', items: new OA\Items(oneOf: self::person())),
                'integers' => new OA\Property(property: $name, type: 'array', items: new OA\Items(type: 'integer')),
                'string', 'integer', 'boolean' => new OA\Property(property: $name, type: $type, nullable: $optional ? true : null),
                default => new OA\Property(property: $name, type: 'string', enum: explode('|', $type), nullable: $optional ? true : null),
            };
            if (! $optional) {
                $required[] = $name;
            }
        }
        parent::__construct(required: true, content: new OA\MediaType(
            mediaType: 'application/json',
            schema: new OA\Schema(type: 'object', required: $required === [] ? null : $required, properties: $properties),
        ));
    }

    /** @return list<OA\Schema> somebody, by id or by handle */
    private static function person(): array
    {
        return [new OA\Schema(type: 'integer'), new OA\Schema(type: 'string')];
    }
}
