<?php

declare(strict_types=1);

namespace App\Http\Describe;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Route as Routes;

/**
 * What each operation takes, told from the request that its action asks for: what is read, behind the question mark; what changes
 * something, as a JSON body.
 *
 * @phpstan-type Told array<string, mixed>
 */
final class Requests
{
    /**
     * @param  array<string, mixed>  $described  an OpenAPI document
     * @return array<string, mixed>
     */
    public static function into(array $described): array
    {
        $paths = (array) $described['paths'];
        foreach (Routes::getRoutes()->getRoutes() as $route) {
            $path = '/'.$route->uri();
            foreach (array_map(strtolower(...), $route->methods()) as $method) {
                $taken = isset($paths[$path][$method]) ? self::taken($route, $method) : null;
                if ($taken !== null) {
                    $paths[$path][$method] = self::with($paths[$path][$method], $taken, $method);
                }
            }
        }

        return ['paths' => $paths] + $described;
    }

    /** What an action takes by a request of its own, or null. */
    private static function taken(Route $route, string $method): ?FormRequest
    {
        foreach ($route->signatureParameters(['subClass' => FormRequest::class]) as $parameter) {
            $type = $parameter->getType();
            $class = $type instanceof \ReflectionNamedType ? $type->getName() : '';
            if (is_subclass_of($class, FormRequest::class)) {
                return $class::create('/'.$route->uri(), strtoupper($method));
            }
        }

        return null;
    }

    /**
     * @param  Told  $operation
     * @return Told
     */
    private static function with(array $operation, FormRequest $request, string $method): array
    {
        $schema = RequestSchema::of($request);
        // A secret never stands in an address, where it would be kept by whatever it passes.
        if (! in_array($method, ['get', 'delete'], true) || isset($schema['properties']['password'])) {
            return $operation + ['requestBody' => ['required' => true, 'content' => ['application/json' => ['schema' => $schema]]]];
        }
        $meant = $request instanceof SaysWhatIsAsked ? $request->meant() : [];
        foreach ($schema['properties'] ?? [] as $name => $told) {
            // What is not asked for is left out; there is no null in an address.
            $operation['parameters'][] = ['name' => $name, 'in' => 'query']
                + (isset($meant[$name]) ? ['description' => $meant[$name]] : [])
                + ['required' => in_array($name, $schema['required'] ?? [], true), 'schema' => self::withoutNull($told)];
        }

        return $operation;
    }

    /**
     * @param  Told  $told
     * @return Told
     */
    private static function withoutNull(array $told): array
    {
        $told['type'] = is_array($told['type'] ?? null) ? $told['type'][0] : $told['type'] ?? 'string';
        if (isset($told['enum'])) {
            $told['enum'] = array_values(array_filter($told['enum'], is_string(...)));
        }

        return $told;
    }
}
