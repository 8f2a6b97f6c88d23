<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use Illuminate\Foundation\Http\FormRequest;

final class RehearsalInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'file' => 'required|array', 'rule' => 'nullable|integer', 'record' => 'nullable|array', 'opening' => 'nullable|array',
            'whatIfs' => 'nullable|array|list|max:20', 'others' => 'nullable|boolean',
        ];
    }
}
