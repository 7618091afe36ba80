import { Link } from 'react-router';

/** Our name, which leads to the sites. */
export const Brand = () => (
  <Link className="text-brand font-bold tracking-[-0.005em]" to="/">
    Syndeton
  </Link>
);
