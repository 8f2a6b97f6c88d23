<?php

declare(strict_types=1);

namespace App\Http\Import;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use VividLedger\Import\Mode;

final class ImportPlanInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'mapping' => 'present|array|max:200', 'mapping.*' => 'string|max:64', 'key' => 'nullable|string|max:64',
            'mode' => ['required', Rule::enum(Mode::class)], 'values' => 'sometimes|array|list|max:500',
            'values.*.field' => 'required|string|max:64', 'values.*.from' => 'required|string|max:300',
            'values.*.to' => 'present|nullable|string|max:300',
        ];
    }
}
