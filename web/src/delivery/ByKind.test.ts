import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import ByKind from './ByKind.svelte';
import { words } from './orderWords';

function shown(made: object) {
  const choose = vi.fn();
  render(ByKind, { label: 'In a clash', words: words.clash, made, other: 'TAKE_VERSION', choose });
  return choose;
}

describe('a choice by kind', () => {
  it('is added for one kind, otherwise than for the rest', async () => {
    const choose = shown({});
    const more = screen.getByLabelText('In a clash, another kind');
    await fireEvent.change(more, { target: { value: 'QUIZ' } });
    expect(choose).toHaveBeenCalledWith({ QUIZ: 'TAKE_VERSION' });
  });

  it('is changed where it stands, or taken back', async () => {
    const choose = shown({ QUIZ: 'TAKE_VERSION', PAGE: 'PUT_BACK' });
    const quizzes = screen.getByLabelText('In a clash, quizzes');
    await fireEvent.change(quizzes, { target: { value: 'PUT_BACK' } });
    expect(choose).toHaveBeenLastCalledWith({ QUIZ: 'PUT_BACK', PAGE: 'PUT_BACK' });
    await fireEvent.change(quizzes, { target: { value: '' } });
    expect(choose).toHaveBeenLastCalledWith({ PAGE: 'PUT_BACK' });
  });
});
