<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { untrack } from 'svelte';
    import { shownNumber, typedNumber } from '../../state/numbers';

    /* A number, typed and shown as the language of the person writes it, and kept with a point: "1.234,50" is 1234.50. */
    type Props = { value: string; class?: string; id?: string; placeholder?: string; 'aria-invalid'?: true; 'aria-label'?: string };
    let { value = $bindable(), class: looks = '', ...rest }: Props = $props();
    let typed = $state('');
    $effect.pre(() => {
        // From elsewhere: what is typed stays as it is typed.
        const kept = value;
        if (typedNumber(untrack(() => typed)) !== kept) typed = shownNumber(kept);
    });
</script>

<Input
    {...rest}
    class="figures {looks}"
    inputmode="decimal"
    autocomplete="off"
    bind:value={typed}
    oninput={() => (value = typedNumber(String(typed ?? '')))}
/>
