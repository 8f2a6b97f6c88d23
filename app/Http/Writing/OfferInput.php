<?php

declare(strict_types=1);

namespace App\Http\Writing;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use VividLedger\Shape\EditorSort;

final class OfferInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'file' => 'required|array', 'at' => 'required|string|max:2000', 'by' => ['required', Rule::enum(EditorSort::class)],
            'on' => 'nullable|string',
        ];
    }
}
