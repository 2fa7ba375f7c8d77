import { type ReactNode, useId } from "react";

interface Props {
  title: ReactNode;
  /** Level of its heading. */
  level?: 2 | 3;
  className?: string;
  headClass?: string;
  children: ReactNode;
}

/** A part of a page under its heading, which is its name to readers too. */
export function Section({ title, level = 2, className, headClass, children }: Props) {
  const id = useId();
  const Heading = `h${level}` as const;
  return (
    <section className={className} aria-labelledby={id}>
      <Heading id={id} className={headClass}>
        {title}
      </Heading>
      {children}
    </section>
  );
}
