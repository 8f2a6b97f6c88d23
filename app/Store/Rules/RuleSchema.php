<?php

declare(strict_types=1);

namespace App\Store\Rules;

use Opis\JsonSchema\Errors\ValidationError;
use Opis\JsonSchema\Validator;
use VividLedger\Rule\Reading\RuleFileSchema;
use VividLedger\Shape\Kinds;

/** Holds rule files against docs/schema/rule.schema.json. */
final class RuleSchema
{
    public const PATH = 'docs/schema/rule.schema.json';

    private const MOST = 20;

    /**
     * @param  mixed  $data  decoded with objects as objects
     * @param  string  $schema  the path of the schema it is held against
     * @return list<array{at: string, code: string, message: string}>
     */
    public static function problems(mixed $data, string $schema = self::PATH): array
    {
        $held = $schema === self::PATH ? self::inUse()
            : (object) json_decode((string) file_get_contents(base_path($schema)), false, 64, JSON_THROW_ON_ERROR);
        $error = (new Validator(max_errors: self::MOST, stop_at_first_error: false))->validate($data, $held)->error();
        $problems = [];
        foreach ($error === null ? [] : self::leaves($error) as $leaf) {
            $at = implode('', array_map(static fn (int|string $part): string => "/{$part}", $leaf->data()->fullPath()));
            $message = SchemaWords::said($leaf);
            if ($message !== null) {
                $problems[$at] ??= ['at' => $at, 'code' => 'malformed_rule', 'message' => $message];
            }
        }

        return array_values($problems);
    }

    /** The published one, which is there already; where kinds were added to ours, it is made anew. */
    private static function inUse(): object
    {
        return Kinds::once(self::class, static fn (): object => (object) json_decode(
            Kinds::areOurs() ? (string) file_get_contents(base_path(self::PATH)) : self::made(),
            false,
            512,
            JSON_THROW_ON_ERROR,
        ));
    }

    /** The schema as it is to be published, made of what the kinds say of themselves; only that of proofs is written by itself. */
    public static function made(): string
    {
        /** @var array<string, mixed> $proofs */
        $proofs = json_decode((string) file_get_contents(resource_path('schema/proofs.json')), true, 512, JSON_THROW_ON_ERROR);

        return json_encode(
            RuleFileSchema::all($proofs),
            JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
        )."\n";
    }

    /** @return list<ValidationError> the errors that have no more exact ones below them */
    public static function leaves(ValidationError $error): array
    {
        $leaves = [];
        foreach ($error->subErrors() as $below) {
            array_push($leaves, ...self::leaves($below));
        }

        return $leaves === [] ? [$error] : $leaves;
    }
}
