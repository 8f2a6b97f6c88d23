<?php

declare(strict_types=1);

namespace App\Http\Describe;

use App\Http\Moment;
use App\Http\PersonGiven;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rules\Enum;

/**
 * What a request takes as JSON Schema, from the rules that it is checked by: there is no second list that could say something else.
 *
 * @phpstan-type Told array<string, mixed>
 */
final readonly class RequestSchema
{
    /** @param  array<string, list<mixed>>  $rules by the dotted name of a member, "*" for each of a list or of a map */
    private function __construct(private array $rules)
    {
    }

    /**
     * @return Told of an object
     */
    public static function of(FormRequest $request): array
    {
        $rules = method_exists($request, 'rules') ? (array) $request->rules() : [];

        return (new self(array_map(self::split(...), $rules)))->object('');
    }

    /** @return list<mixed> one rule each: a word, or an object that checks */
    private static function split(mixed $rules): array
    {
        $all = [];
        foreach (is_array($rules) ? $rules : [$rules] as $rule) {
            // An expression may have a bar in it.
            $all = [...$all, ...(is_string($rule) && ! str_starts_with($rule, 'regex:') ? explode('|', $rule) : [$rule])];
        }

        return $all;
    }

    /** @return Told */
    private function object(string $within): array
    {
        $properties = [];
        $required = [];
        foreach ($this->members($within) as $name) {
            $rules = $this->rules[$within.$name];
            if (in_array('prohibited', $rules, true)) {
                continue;
            }
            // Anything at all is a schema of its own: true.
            $properties[$name] = $this->value($within.$name) ?: true;
            if (in_array('required', $rules, true) || in_array('present', $rules, true)) {
                $required[] = $name;
            }
        }

        return ['type' => 'object'] + ($required === [] ? [] : ['required' => $required])
            + ($properties === [] ? [] : ['properties' => $properties]);
    }

    /** @return list<string> */
    private function members(string $within): array
    {
        $names = [];
        foreach (array_keys($this->rules) as $name) {
            $rest = str_starts_with($name, $within) ? substr($name, strlen($within)) : '';
            if ($rest !== '' && ! str_contains($rest, '.')) {
                $names[] = $rest;
            }
        }

        return $names;
    }

    /** @return Told */
    private function value(string $name): array
    {
        $rules = $this->rules[$name] ?? [];
        $words = array_values(array_filter($rules, is_string(...)));
        $type = array_values(array_intersect($words, ['integer', 'boolean', 'string', 'array']))[0] ?? '';
        $told = match (true) {
            $type === 'array' => $this->container($name, in_array('list', $words, true)),
            $type !== '' => ['type' => $type],
            default => self::byOthers($rules, $words),
        };
        foreach ($rules as $rule) {
            $told = [...$told, ...self::bounds($rule, $told['type'] ?? '')];
        }
        if (in_array('nullable', $words, true) && $told !== []) {
            $told = isset($told['oneOf']) ? ['oneOf' => [...$told['oneOf'], ['type' => 'null']]]
                : ['type' => [$told['type'], 'null']] + $told;
        }

        return $told;
    }

    /** @return Told of a list, a map, or an object whose members are named */
    private function container(string $name, bool $isList): array
    {
        $each = match (true) {
            $this->members("{$name}.*.") !== [] => $this->object("{$name}.*."),
            isset($this->rules["{$name}.*"]) => $this->value("{$name}.*"),
            default => null,
        };
        if ($isList) {
            return ['type' => 'array', 'items' => $each ?? ['type' => 'object', 'additionalProperties' => true]];
        }
        $object = $this->object("{$name}.");

        return $each === null && isset($object['properties']) ? $object : ['type' => 'object', 'additionalProperties' => $each ?? true];
    }

    /**
     * @param  list<mixed>  $rules
     * @param  list<string>  $words
     * @return Told of what is told by no word for a type
     */
    private static function byOthers(array $rules, array $words): array
    {
        foreach ($rules as $rule) {
            if ($rule instanceof PersonGiven) {
                return ['oneOf' => [['type' => 'integer'], ['type' => 'string']]];
            }
            if ($rule instanceof Moment || $rule instanceof Enum || self::choices($rule) !== []) {
                return ['type' => 'string'];
            }
        }
        $texts = ['email', 'timezone', 'json'];

        return array_intersect($words, $texts) !== [] || preg_grep('/^(date_format|regex):/', $words) !== [] ? ['type' => 'string'] : [];
    }

    /** @return Told what one rule adds: a bound, a choice, a form */
    private static function bounds(mixed $rule, mixed $type): array
    {
        $choices = self::choices($rule);
        if ($choices !== []) {
            return ['enum' => $choices];
        }
        if (! is_string($rule)) {
            return [];
        }
        [$word, $given] = explode(':', $rule, 2) + [1 => ''];
        $of = match ($type) {
            'integer' => ['minimum', 'maximum'], 'string' => ['minLength', 'maxLength'], 'array' => ['minItems', 'maxItems'],
            default => ['minProperties', 'maxProperties'],
        };

        return match ($word) {
            'min' => [$of[0] => (int) $given],
            'max' => [$of[1] => (int) $given],
            'between' => array_combine($of, array_map(intval(...), explode(',', $given))),
            'email' => ['format' => 'email'],
            'date_format' => ['format' => 'date'],
            default => [],
        };
    }

    /** @return list<string> */
    private static function choices(mixed $rule): array
    {
        if ($rule instanceof Enum) {
            $enum = (new \ReflectionProperty($rule, 'type'))->getValue($rule);

            return is_string($enum) && is_subclass_of($enum, \BackedEnum::class)
                ? array_map(static fn (\BackedEnum $case): string => (string) $case->value, $enum::cases()) : [];
        }
        $word = is_string($rule) || $rule instanceof \Stringable ? (string) $rule : '';

        return str_starts_with($word, 'in:') ? array_map(strval(...), str_getcsv(substr($word, 3), ',', '"', '')) : [];
    }
}
