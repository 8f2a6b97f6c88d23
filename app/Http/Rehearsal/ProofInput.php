<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use Illuminate\Foundation\Http\FormRequest;

final class ProofInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'present|nullable|string', 'file' => 'required|array', 'record' => 'required|array', 'opening' => 'nullable|array',
            'whatIfs' => 'nullable|array|list|max:20', 'others' => 'nullable|boolean',
        ];
    }
}
