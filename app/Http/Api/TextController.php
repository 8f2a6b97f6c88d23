<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\MisreadingShape;
use App\Http\Api\Shape\PrintedShape;
use App\Http\Api\Shape\TextShape;
use App\Http\Input\LineTextInput;
use App\Http\Input\RuleFileInput;
use App\Http\Input\RuleTextInput;
use OpenApi\Attributes as OA;
use VividLedger\Text\Misreading;
use VividLedger\Text\RuleText;
use VividLedger\Text\TextReading;

/** Rules as text: printed, and read from what somebody types. */
final class TextController extends Controller
{
    public function __construct(private readonly RuleText $text)
    {
    }

    #[
        OA\Post(
            path: '/api/text/print',
            operationId: 'printRule',
            description: 'A rule file as text.',
            tags: ['rules'],
            requestBody: new Body(['file' => 'object']),
            responses: [new Ok(PrintedShape::class)],
        ),
    ]
    public function print(RuleFileInput $request): PrintedShape
    {
        return new PrintedShape($this->text->print($request->validated()['file']));
    }

    #[
        OA\Post(
            path: '/api/text/rule',
            operationId: 'readRuleText',
            description: 'Reads the text of a whole rule.',
            tags: ['rules'],
            requestBody: new Body(['text' => 'string']),
            responses: [new Ok(TextShape::class)],
        ),
    ]
    public function rule(RuleTextInput $request): TextShape
    {
        $given = $request->validated();

        return self::shape($this->text->parse((string) $given['text']));
    }

    #[
        OA\Post(
            path: '/api/text/line',
            operationId: 'readLineText',
            description: 'Reads a line of a rule as it is typed. What is not understood comes with what could stand there.',
            tags: ['rules'],
            requestBody: new Body(['text' => 'string', 'on' => 'string']),
            responses: [new Ok(TextShape::class)],
        ),
    ]
    public function line(LineTextInput $request): TextShape
    {
        $given = $request->validated();

        return self::shape($this->text->parseLine((string) $given['text'], $this->type($given['on'])));
    }

    private static function shape(TextReading $reading): TextShape
    {
        return new TextShape($reading->file, array_map(static fn (Misreading $misread): MisreadingShape => new MisreadingShape(
            $misread->line, $misread->position, $misread->word, $misread->message(), array_slice($misread->expected, 0, 200),
            array_slice($misread->offers, 0, 200),
        ), $reading->misread));
    }
}
