<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Evidence\Ledger\Reversal;
use Illuminate\Foundation\Http\FormRequest;

final class ReversalInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'entries' => 'required|array|list|max:'.Reversal::MOST, 'entries.*' => 'integer|min:1', 'force' => 'nullable|boolean',
            'why' => 'nullable|string|max:200',
        ];
    }
}
