<?php

declare(strict_types=1);

namespace VividLedger\Formula;

use Symfony\Component\ExpressionLanguage\Lexer;
use Symfony\Component\ExpressionLanguage\Node\BinaryNode;
use Symfony\Component\ExpressionLanguage\Node\ConditionalNode;
use Symfony\Component\ExpressionLanguage\Node\ConstantNode;
use Symfony\Component\ExpressionLanguage\Node\FunctionNode;
use Symfony\Component\ExpressionLanguage\Node\GetAttrNode;
use Symfony\Component\ExpressionLanguage\Node\NameNode;
use Symfony\Component\ExpressionLanguage\Node\Node;
use Symfony\Component\ExpressionLanguage\Node\UnaryNode;
use Symfony\Component\ExpressionLanguage\Parser;
use Symfony\Component\ExpressionLanguage\SyntaxError;
use Symfony\Component\ExpressionLanguage\Token;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/**
 * Reads a formula: its syntax with the expression language's own parser, its meaning and its types here. What the
 * language offers beyond arithmetic, comparison, logic, "?:" and our functions is refused.
 */
final class FormulaParser
{
    private const MOST_CHARACTERS = 1000;

    /** @var list<Token> names, numbers and texts in the order they stand in the formula, which is the order of the tree */
    private array $tokens = [];

    private int $at = 1;

    private function __construct(private readonly Schema $schema, private readonly RecordType $type, private readonly string $text)
    {
    }

    /** @throws FormulaError */
    public static function parse(string $text, Schema $schema, RecordType $type): Term
    {
        if (mb_strlen($text) > self::MOST_CHARACTERS) {
            throw new FormulaError(
                Words::say('A formula has at most {characters} characters.', characters: self::MOST_CHARACTERS),
                self::MOST_CHARACTERS,
            );
        }
        try {
            $stream = (new Lexer)->tokenize($text);
            $parser = new self($schema, $type, $text);
            for ($tokens = clone $stream; ! $tokens->isEOF(); $tokens->next()) {
                if (in_array($tokens->current->type, [Token::NAME_TYPE, Token::NUMBER_TYPE, Token::STRING_TYPE], true)) {
                    $parser->tokens[] = $tokens->current;
                }
            }
            $functions = array_map(
                static fn (): array => ['compiler' => static fn (): string => '', 'evaluator' => static fn (): null => null],
                FormulaFunctions::ALL,
            );
            $tree = (new Parser($functions))->parse($stream, array_keys($type->fields));
        } catch (SyntaxError $error) {
            preg_match('/^(.*?) around position (\d+)/s', $error->getMessage(), $found);

            throw new FormulaError(self::said(rtrim($found[1] ?? 'This cannot be read', '.')), max(1, (int) ($found[2] ?? 1)));
        } catch (\Throwable) {
            throw new FormulaError(Words::say('This cannot be read as a formula.'), 1);
        }

        $term = $parser->term($tree);
        Digits::of($term);

        return $term;
    }

    /** The parser's few messages, in the words of this application. */
    private static function said(string $message): string
    {
        return match (true) {
            preg_match('/^Variable "(.+)" is not valid/', $message, $found) === 1 => Words::say(
                'There is no field ‘{found}’.',
                found: $found[1],
            ),
            preg_match('/^The function "(.+)" does not exist/', $message, $found) === 1 => Words::say(
                'There is no function ‘{found}’.',
                found: $found[1],
            ),
            preg_match(
                '/^Unexpected token "(.+)" of value "(.*)"/',
                $message,
                $found,
            ) === 1 => $found[1] === 'end of expression' ? Words::say('Something is missing at the end.') : Words::say(
                '‘{found}’ does not fit here.',
                found: $found[2],
            ),
            preg_match('/^Unexpected character "(.+)"/', $message, $found) === 1 => Words::say(
                '‘{found}’ does not belong in a formula.',
                found: $found[1],
            ),
            preg_match('/^Unclosed "(.+)"/', $message, $found) === 1 => Words::say('‘{found}’ is not closed.', found: $found[1]),
            default => "{$message}.",
        };
    }

    private function term(Node $node): Term
    {
        return match (true) {
            $node instanceof ConstantNode => $this->constant($node),
            $node instanceof NameNode => $this->field($this->name($node), $this->next()),
            $node instanceof GetAttrNode => $this->path($node),
            $node instanceof UnaryNode => $this->unary($node),
            $node instanceof BinaryNode => $this->binary($node),
            $node instanceof ConditionalNode => $this->conditional($node),
            $node instanceof FunctionNode => $this->call($node),
            default => throw new FormulaError(Words::say('This is more than a formula can do.'), $this->at),
        };
    }

    private function constant(ConstantNode $node): Term
    {
        $position = $this->next();
        $value = $node->attributes['value'] ?? null;

        return match (true) {
            is_int($value), is_float($value) => new Term('value', FormulaType::Number, [], $position, $this->number($position)),
            is_string($value) => new Term(
                'value',
                preg_match('/^\d{4}-\d{2}-\d{2}$/', $value) === 1 ? FormulaType::Date : FormulaType::Text,
                [],
                $position,
                $value,
            ),
            is_bool($value) => new Term('value', FormulaType::Truth, [], $position, $value),
            $value === null => new Term('value', FormulaType::Nothing, [], $position),
            default => throw new FormulaError(Words::say('This is no value for a formula.'), $position),
        };
    }

    /** The number as it is written: what the parser made of it may have lost digits. */
    private function number(int $position): string
    {
        preg_match('/\G\d[\d_.]*(?:[eE][+-]?\d+)?/', $this->text, $found, 0, $position - 1);
        $written = str_replace('_', '', $found[0] ?? '');

        return preg_match('/^\d{1,15}(\.\d{1,12})?$/', $written) === 1 ? $written
            : throw new FormulaError(
                Words::say('A number has at most 15 digits before the point and 12 behind it, written out.'),
                $position,
            );
    }

    private function field(string $dotted, int $position): Term
    {
        $path = $this->schema->path($this->type, $dotted) ?? throw new FormulaError(
            Words::say('{type} has no field ‘{dotted}’.', type: $this->type->label, dotted: $dotted),
            $position,
        );

        return new Term('field', FormulaType::of($path->field->type), [], $position, path: $path);
    }

    private function path(GetAttrNode $node): Term
    {
        $names = [];
        for ($part = $node; $part instanceof GetAttrNode; $part = $part->nodes['node'] ?? null) {
            $attribute = $part->nodes['attribute'] ?? null;
            if (($part->attributes['type'] ?? null) !== GetAttrNode::PROPERTY_CALL || ! $attribute instanceof ConstantNode) {
                throw new FormulaError(Words::say('A formula only reads fields.'), $this->at);
            }
            $name = $attribute->attributes['value'] ?? '';
            array_unshift($names, is_string($name) ? $name : '');
        }
        if (! $part instanceof NameNode) {
            throw new FormulaError(Words::say('A path begins with a field.'), $this->at);
        }
        array_unshift($names, $this->name($part));
        $position = $this->next();
        for ($count = 1; $count < count($names); $count++) {
            $this->next();
        }

        return $this->field(implode('.', $names), $position);
    }

    private function unary(UnaryNode $node): Term
    {
        $of = $this->below($node, 'node');
        $operator = $this->operator($node);
        if ($operator === 'not' || $operator === '!') {
            return new Term('not', FormulaType::Truth, [$this->want($of, FormulaType::Truth)], $of->position);
        }
        if ($operator !== '-') {
            throw new FormulaError(Words::say('‘{operator}’ does not belong here.', operator: $operator), $of->position);
        }
        $zero = new Term('value', FormulaType::Number, [], $of->position, '0');

        return new Term('-', FormulaType::Number, [$zero, $this->want($of, FormulaType::Number)], $of->position);
    }

    private function binary(BinaryNode $node): Term
    {
        $operator = $this->operator($node);
        $left = $this->below($node, 'left');
        $right = $this->below($node, 'right');

        return match ($operator) {
            '+', '-', '*', '/' => new Term(
                $operator,
                FormulaType::Number,
                [$this->want($left, FormulaType::Number), $this->want($right, FormulaType::Number)],
                $left->position,
            ),
            '~' => new Term(
                '~',
                FormulaType::Text,
                [$this->want($left, FormulaType::Text), $this->want($right, FormulaType::Text)],
                $left->position,
            ),
            'and', '&&' => new Term(
                'and',
                FormulaType::Truth,
                [$this->want($left, FormulaType::Truth), $this->want($right, FormulaType::Truth)],
                $left->position,
            ),
            'or', '||' => new Term(
                'or',
                FormulaType::Truth,
                [$this->want($left, FormulaType::Truth), $this->want($right, FormulaType::Truth)],
                $left->position,
            ),
            '==', '===' => $this->compared('==', $left, $right),
            '!=', '!==' => new Term('not', FormulaType::Truth, [$this->compared('==', $left, $right)], $left->position),
            '<', '<=', '>', '>=' => $this->compared($operator, $left, $right),
            default => throw new FormulaError(Words::say('‘{operator}’ is not known in formulas.', operator: $operator), $left->position),
        };
    }

    private function compared(string $operator, Term $left, Term $right): Term
    {
        [$left, $right] = [$this->chosen($left, $right), $this->chosen($right, $left)];
        if ($left->type === FormulaType::Nothing || $right->type === FormulaType::Nothing) {
            if ($operator !== '==') {
                throw new FormulaError(Words::say('Nothing is neither more nor less. Use empty(…).'), $left->position);
            }

            return new Term('empty', FormulaType::Truth, [$left->type === FormulaType::Nothing ? $right : $left], $left->position);
        }
        if ($left->type !== $right->type) {
            throw new FormulaError(
                Words::say('{kind} cannot be compared with {type}.', kind: $this->kind($left), type: $right->type->value),
                $right->position,
            );
        }
        if ($operator !== '==' && ! in_array($left->type, [FormulaType::Number, FormulaType::Date, FormulaType::Moment], true)) {
            throw new FormulaError(Words::say('{kind} has no order.', kind: $this->kind($left)), $left->position);
        }

        return new Term($operator, FormulaType::Truth, [$left, $right], $left->position);
    }

    /** A text beside a choice field names one of its choices, by its label or its value. */
    private function chosen(Term $text, Term $other): Term
    {
        $field = $other->path?->field;
        if ($text->op !== 'value' || ! is_string($text->value) || $field === null || $field->type !== FieldType::Choice) {
            return $text;
        }
        foreach ($field->choices as $choice) {
            if (mb_strtolower($choice->label) === mb_strtolower($text->value) || $choice->value === $text->value) {
                return new Term('value', FormulaType::Named, [], $text->position, $choice->value);
            }
        }

        throw new FormulaError(Words::say('{field} does not offer ‘{text}’.', field: $field->label, text: $text->value), $text->position);
    }

    private function conditional(ConditionalNode $node): Term
    {
        $condition = $this->want($this->below($node, 'expr1'), FormulaType::Truth);
        $then = $this->below($node, 'expr2');
        $else = $this->below($node, 'expr3');
        $type = $then->type === FormulaType::Nothing ? $else->type : $then->type;
        if ($else->type !== $type && $else->type !== FormulaType::Nothing) {
            throw new FormulaError(
                Words::say('The two outcomes differ: {type}, and {other}.', type: $then->type->value, other: $else->type->value),
                $else->position,
            );
        }

        return new Term('if', $type, [$condition, $then, $else], $condition->position);
    }

    private function call(FunctionNode $node): Term
    {
        $position = $this->next();
        $name = $node->attributes['name'] ?? '';
        $name = is_string($name) ? $name : '';
        [$takes, $gives] = FormulaFunctions::ALL[$name] ?? throw new FormulaError(
            Words::say('There is no function ‘{name}’.', name: $name),
            $position,
        );
        $parts = array_map($this->term(...), $this->arguments($node));
        if (count($parts) !== count($takes)) {
            throw new FormulaError(
                Words::say('{name} takes {takes} values, not {parts}.', name: $name, takes: count($takes), parts: count($parts)),
                $position,
            );
        }
        foreach ($takes as $index => $type) {
            if ($type !== null) {
                $this->want($parts[$index], $type);
            }
        }
        if ($name === 'round' && preg_match('/^[0-6]$/', (string) $parts[1]->value) !== 1) {
            throw new FormulaError(Words::say('How many digits to round to is a number from 0 to 6.'), $parts[1]->position);
        }

        return new Term($name, $gives, $parts, $position);
    }

    private function want(Term $term, FormulaType $type): Term
    {
        return $term->type === $type ? $term : throw new FormulaError(
            Words::say('{kind} does not fit here, which takes {type}.', kind: $this->kind($term), type: $type->value),
            $term->position,
        );
    }

    private function kind(Term $term): string
    {
        return $term->path === null ? ucfirst($term->type->value) : "{$term->path->label()} is {$term->type->value}, and";
    }

    private function below(Node $node, string $name): Term
    {
        $below = $node->nodes[$name] ?? null;

        return $below instanceof Node ? $this->term($below) : throw new FormulaError(Words::say('Something is missing here.'), $this->at);
    }

    /** @return list<Node> */
    private function arguments(FunctionNode $node): array
    {
        $arguments = $node->nodes['arguments'] ?? null;

        return $arguments instanceof Node ? array_values(array_filter(
            $arguments->nodes,
            static fn (mixed $part): bool => $part instanceof Node,
        )) : [];
    }

    private function operator(Node $node): string
    {
        $operator = $node->attributes['operator'] ?? '';

        return is_string($operator) ? $operator : '';
    }

    private function name(NameNode $node): string
    {
        $name = $node->attributes['name'] ?? '';

        return is_string($name) ? $name : '';
    }

    /** The position of the next token, which belongs to the node at hand. */
    private function next(): int
    {
        $token = array_shift($this->tokens);

        return $this->at = $token === null ? $this->at : (int) $token->cursor;
    }
}
