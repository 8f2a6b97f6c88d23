<?php

declare(strict_types=1);

namespace App\Http\Describe;

use OpenApi\Analysis;
use OpenApi\Annotations as OA;
use OpenApi\Attributes\PathParameter;
use OpenApi\Attributes\Response;
use OpenApi\Attributes\Schema;

/** Fills in what holds for every operation and shape, so that no controller has to repeat it. */
final class FillIn
{
    /** Names in a path that stand for numbers. */
    private const NUMBERS = ['id', 'number'];

    public function __invoke(Analysis $analysis): void
    {
        foreach ($analysis->openapi->components->schemas ?? [] as $schema) {
            // What the server answers is whole unless a shape says otherwise; what may be missing is said with null.
            $properties = self::said($schema->properties);
            if ($properties !== [] && self::said($schema->required) === []) {
                $schema->required = array_map(static fn (OA\Property $property): string => $property->property, $properties);
            }
        }
        foreach ($analysis->getAnnotationsOfType(OA\Operation::class) as $operation) {
            if ($operation instanceof OA\Operation) {
                $this->pathParameters($operation);
                $problem = new Response(response: 'default', ref: '#/components/responses/Problem', description: '');
                $operation->responses = [...$operation->responses, $problem];
            }
        }
    }

    private function pathParameters(OA\Operation $operation): void
    {
        preg_match_all('/\{(\w+)\}/', $operation->path, $found);
        $parameters = array_map(static fn (string $name): PathParameter => new PathParameter(
            name: $name, required: true, schema: new Schema(type: in_array($name, self::NUMBERS, true) ? 'integer' : 'string'),
        ), $found[1]);
        $all = [...self::said($operation->parameters), ...$parameters];
        if ($all !== []) {
            $operation->parameters = $all;
        }
    }

    /**
     * What is not said is a text in the library, against its own types.
     *
     * @template T
     *
     * @param  array<T>|string  $given
     * @return list<T>
     */
    private static function said(array|string $given): array
    {
        return is_array($given) ? array_values($given) : [];
    }
}
